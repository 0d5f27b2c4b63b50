import { randomBytes } from 'node:crypto';
import type { MessagePort } from 'node:worker_threads';
import type { ByteSource } from '@marvet/core/audio/byteSource';
import { DecodeError } from '@marvet/core/audio/decode/decodedSound';
import { narrowed } from '@marvet/core/audio/narrowed';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { WavError } from '@marvet/core/audio/wavFormat';
import { writeWav } from '@marvet/core/audio/writeWav';
import { allocate } from '@marvet/core/decide/allocate/allocate';
import { Undecided, wholeNumberSolver } from '@marvet/core/decide/allocate/wholeNumbers';
import { DRAWS, rankDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import { effectsOf } from '@marvet/core/decide/effects/effects';
import { blindClip, clipPiece } from '@marvet/core/listen/blindClip';
import { CLIP_RATE_HZ } from '@marvet/core/listen/clipForm';
import { toneOf } from '@marvet/core/listen/clipTone';
import { cutRound } from '@marvet/core/listen/cutRound';
import { pieceBytes } from '@marvet/core/listen/pieceBytes';
import { type GrowingFile, measureGrowing } from '@marvet/core/measure/measureGrowing';
import { backupOf } from '@marvet/core/measure/pair/backupFile';
import { measurePair } from '@marvet/core/measure/pair/pair';
import { fileTrack, monoTrack, type PairTrack } from '@marvet/core/measure/pair/track';
import { measureFile } from '@marvet/core/measure/report';
import { buildPlan } from '@marvet/core/plan/buildPlan';
import { fileLevels } from '@marvet/core/takes/passages/fileLevels';
import { placeByClock } from '@marvet/core/takes/places/placeByClock';
import { type SoundLink, sameSound } from '@marvet/core/takes/sound/sameSound';
import { soundPrint } from '@marvet/core/takes/sound/soundPrint';
import { withFileSource } from '../audio/fileSource.ts';
import { decodeFile } from './decodeFile.ts';
import type { AlikeTask, Answer, AnyTask, ChannelPlace, PrintedFile } from './tasks.ts';

const PROGRESS_EVERY_MS = 150;

/** Entry of every worker thread. What is wrong with the input is answered; anything else ends the thread's task as an error. */
export default async function work({ task, progress }: { task: AnyTask; progress: MessagePort }): Promise<Answer> {
  try {
    return { ok: true, result: await done(task, progress) };
  } catch (error) {
    if (error instanceof WavError || error instanceof DecodeError || error instanceof Undecided) return { ok: false, message: error.message };
    throw error;
  }
}

function done(task: AnyTask, progress: MessagePort): unknown {
  switch (task.kind) {
    case 'measure':
      return withFileSource(task.path, (source) => {
        const tell = sparing(progress);
        return task.parts.map(({ span, options }, part) => measureFile(source, options, (share) => tell((part + share) / task.parts.length), span));
      });
    case 'decode':
      return decodeFile(task.path, task.out);
    case 'follow':
      return withFileSource(task.path, (source) => measureGrowing(growingFile(source, new Int32Array(task.state)), (heard) => progress.postMessage(heard)));
    case 'pair':
      return withTracks([task.channel, task.reference], ([own, other]) => {
        const warnings: string[] = [];
        return { pair: measurePair(own as PairTrack, other as PairTrack, (message) => warnings.push(message)), warnings };
      });
    case 'backup':
      return Array.from({ length: task.channels }, (_, channel) => {
        const place = (path: string): ChannelPlace => ({ path, channels: [channel], span: [null, null] });
        return withTracks([place(task.path), place(task.otherPath)], ([own, other]) => backupOf(own as PairTrack, other as PairTrack));
      });
    case 'cut':
      return withTracks(task.sources, (tracks) =>
        cutRound(task.sources.map(({ takeId, performance, speech }, index) => ({ track: tracks[index] as PairTrack, takeId, performance, speech }))),
      );
    case 'clip':
      return withTracks([task], ([track]) => {
        const clip = blindClip(track as PairTrack, task, task.wide);
        return writeWav(task.disguise === null ? clip : noisy(clip), { encoding: 'pcm', bitDepth: 24, sampleRateHz: CLIP_RATE_HZ });
      });
    case 'tone':
      return withTracks([task], ([track]) => toneOf(track as PairTrack, task, task.wide, task.sections));
    case 'piece':
      return withTracks(task.clips, (tracks) => {
        const made = task.clips.map((clip, index) => clipPiece(tracks[index] as PairTrack, clip, task.wide, task.piece));
        const heard = task.heard.flatMap((index) => made[index] as Float64Array[]);
        return pieceBytes(task.disguised ? noisy(heard) : heard);
      });
    case 'places':
      return task.recorders.map(({ files, aheadByHandS }) => placeByClock(files, task.takes, aheadByHandS));
    case 'levels':
      return withFileSource(task.path, (source) => fileLevels(source, readWavHeader(source), sparing(progress)));
    case 'print':
      return withFileSource(task.path, (source) => soundPrint(source, readWavHeader(source)));
    case 'alike':
      return linksOf(task);
    case 'doubt':
      return rankDoubt(task.from, task.weights, DRAWS, sparing(progress));
    case 'effects':
      return task.observed.flatMap((observed) => effectsOf(observed, task.together) ?? []);
    case 'allocation':
      return wholeNumberSolver().then((solve) => allocate(task.problem, solve));
    case 'plan':
      return buildPlan(task.plan, task.context, sparing(progress));
  }
}

/** The channel of a printed file whose waves are looked at. */
const placeOf = ({ path, print }: PrintedFile): ChannelPlace => ({ path, channels: [print.channel], span: [null, null] });

function linksOf({ file, others }: AlikeTask): SoundLink[] {
  const sure = new Set<string>();
  return others.flatMap((other) => {
    if (sure.has(other.group)) return [];
    const link = withTracks([placeOf(file), placeOf(other)], ([own, its]) => sameSound({ ...file, track: own as PairTrack }, { ...other, track: its as PairTrack }));
    if (link?.exact) sure.add(other.group);
    return link ? [link] : [];
  });
}

/** Copies with a step of 24 bits up or down here and there: the same clip twice is not the same bytes, and nobody hears it. */
function noisy(channels: readonly Float64Array[]): Float64Array[] {
  return channels.map((samples) => {
    const bits = randomBytes(samples.length);
    const copy = new Float64Array(samples.length);
    for (let at = 0; at < samples.length; at++) copy[at] = (samples[at] as number) + (((bits[at] as number) & 1) - (((bits[at] as number) >> 1) & 1)) * STEP_OF_24_BITS;
    return copy;
  });
}
const STEP_OF_24_BITS = 2 ** -23;

/** How long a thread sleeps at most before it looks again whether the file was closed. */
const SLEEP_MS = 100;

/** A file that the server writes, as far as it says that it is on the disk. */
function growingFile(source: ByteSource, state: Int32Array): GrowingFile {
  return {
    source,
    now() {
      const layout = readWavHeader(source);
      const frames = Math.min(layout.format.frames, Atomics.load(state, 0));
      return { ...layout, format: { ...layout.format, frames, durationS: frames / layout.format.sampleRateHz } };
    },
    waitFor(frames) {
      for (;;) {
        const there = Atomics.load(state, 0);
        if (there > frames) return true;
        if (Atomics.load(state, 1) === 1) return false;
        Atomics.wait(state as Int32Array<SharedArrayBuffer>, 0, there, SLEEP_MS);
      }
    },
  };
}

function openTrack(source: ByteSource, { span, channels }: ChannelPlace): PairTrack {
  const layout = narrowed(readWavHeader(source), span);
  return monoTrack(channels.map((channel) => fileTrack(source, layout, channel)));
}

/** Opens channels of files for the time of `use`. */
function withTracks<Result>(places: readonly ChannelPlace[], use: (tracks: PairTrack[]) => Result, opened: PairTrack[] = []): Result {
  const [place, ...rest] = places;
  if (!place) return use(opened);
  return withFileSource(place.path, (source) => withTracks(rest, use, [...opened, openTrack(source, place)]));
}

/** Progress a few times a second, not more. */
function sparing(progress: MessagePort): (share: number) => void {
  let told = 0;
  return (share) => {
    const now = Date.now();
    if (now - told < PROGRESS_EVERY_MS) return;
    told = now;
    progress.postMessage(share);
  };
}
