import { amplitudeDb } from '../audio/decibel.ts';
import { align } from '../measure/pair/align.ts';
import type { PairTrack } from '../measure/pair/track.ts';
import type { Span } from '../measure/report.types.ts';
import { TruePeakOfPieces } from '../measure/truePeak.ts';
import { meanLoudnessLufs, VoiceLoudness } from './voiceLoudness.ts';

/** One recording of a round, before it is cut. */
export interface RoundSource {
  track: PairTrack;
  /** Recordings of one take heard the same performance. */
  takeId: string;
  /** The part that is judged, in seconds of the track. */
  performance: Span;
  /** Stretches of words, in seconds of the track. */
  speech: readonly Span[];
}

/** Where the clip of one recording begins, and how loud the voice is in it. */
export interface Cut {
  startS: number;
  voiceLufs: number | null;
  truePeakDbtp: number;
  /** How much later it is than the first recording of its take in this round; null where the two could not be aligned. */
  delayMs: number | null;
}

export interface RoundCut {
  cuts: Cut[];
  /** Length that all clips have. */
  lengthS: number;
}

/** What is heard before the first word; less where another word lies nearer, so that no slate is heard. */
const LEAD_S = 0.25;
/** Nobody compares clips longer than this. They are heard in pieces, so that it bounds time, not memory. */
export const LONGEST_CLIP_S = 1800;
/** Sound around the performance that alignment may use, and how much of it. */
const AROUND_S = 2;
const ALIGNED_S = 120;
/** Samples that are in memory at once while a clip is measured. */
const BLOCK = 1 << 18;
const LEAST_S = 0.4;
const SILENT_DBTP = -200;

/**
 * Cuts the recordings of a round to clips that begin at the same syllable and are equally long.
 * Recordings of one take are aligned by their sound, so that the delay of a radio, or of a file that was
 * started later, is taken out; of different takes each begins with its own performance.
 */
export function cutRound(sources: readonly RoundSource[]): RoundCut {
  if (sources.length === 0) return { cuts: [], lengthS: 0 };
  const leadS = Math.min(...sources.map(leadOf));
  const places = sources.map((source) => placeIn(source, sources.find((other) => other.takeId === source.takeId) as RoundSource));
  const begins = sources.map((source, index) => beginOf(source, index, sources, places));
  const starts = begins.map((begin) => begin.startS - leadS);
  // A track that was started late begins for all where it begins.
  const lateS = Math.max(0, ...starts.map((startS) => -startS));
  const lengths = begins.map(({ endS }, index) => {
    const { track } = sources[index] as RoundSource;
    return Math.min(endS, track.frames / track.sampleRateHz) - ((starts[index] as number) + lateS);
  });
  const lengthS = Math.max(0.1, Math.min(LONGEST_CLIP_S, ...lengths));
  const cuts = sources.map(({ track, speech }, index): Cut => {
    const startS = (starts[index] as number) + lateS;
    const words = speech.flatMap(([from, to]): Span[] => (to > startS && from < startS + lengthS ? [[from - startS, to - startS]] : []));
    const levels = (track.channels ?? [track]).map((channel) => levelsOf(channel, startS, lengthS, words));
    const place = places[index] ?? null;
    return {
      startS,
      voiceLufs: meanLoudnessLufs(levels.map(({ voiceLufs }) => voiceLufs)),
      truePeakDbtp: Math.max(...levels.map(({ truePeakDbtp }) => truePeakDbtp)),
      delayMs: place === null ? null : place * 1000,
    };
  });
  return { cuts, lengthS };
}

/** How much later a recording is than the first of its take, in seconds; null where the two have nothing in common. */
function placeIn(source: RoundSource, first: RoundSource): number | null {
  if (source === first) return 0;
  const [own, reference] = [around(source), around(first)];
  const lagS = align(own.track, reference.track)?.latencyS;
  return lagS === undefined ? null : lagS + own.fromS - reference.fromS;
}

/** Where what is judged begins and ends in one recording: of a take the latest beginning and the earliest end of all of its aligned recordings. */
function beginOf(source: RoundSource, index: number, sources: readonly RoundSource[], places: readonly (number | null)[]): { startS: number; endS: number } {
  const own = places[index] ?? null;
  if (own === null) return { startS: source.performance[0], endS: source.performance[1] };
  const together = sources.flatMap((other, at) => (other.takeId === source.takeId && places[at] !== null ? [{ span: other.performance, placeS: places[at] as number }] : []));
  const startS = Math.max(...together.map(({ span, placeS }) => span[0] - placeS));
  const endS = Math.min(...together.map(({ span, placeS }) => span[1] - placeS));
  // Performances that were marked apart by hand leave nothing in common: then each has its own.
  if (endS - startS < LEAST_S) return { startS: source.performance[0], endS: source.performance[1] };
  return { startS: startS + own, endS: endS + own };
}

interface View {
  track: PairTrack;
  fromS: number;
}

/** The track from a little before its performance to a little after it. */
function around({ track, performance }: RoundSource): View {
  const { sampleRateHz } = track;
  const from = Math.max(0, Math.floor((performance[0] - AROUND_S) * sampleRateHz));
  const to = Math.min(track.frames, Math.ceil((Math.min(performance[1], performance[0] + ALIGNED_S) + AROUND_S) * sampleRateHz));
  return { fromS: from / sampleRateHz, track: { sampleRateHz, frames: to - from, read: (start, count) => track.read(from + start, count) } };
}

function leadOf({ performance: [beginS], speech }: RoundSource): number {
  const before = speech.filter(([, endS]) => endS <= beginS + 1e-6).at(-1);
  return before ? Math.min(LEAD_S, Math.max(0, (beginS - before[1]) / 2)) : LEAD_S;
}

/** Loudness of the voice and true peak of a stretch of one channel, read block by block. */
function levelsOf(track: PairTrack, startS: number, lengthS: number, words: readonly Span[]): { voiceLufs: number | null; truePeakDbtp: number } {
  const { sampleRateHz } = track;
  const first = Math.round(startS * sampleRateHz);
  const frames = Math.round(lengthS * sampleRateHz);
  const voice = new VoiceLoudness(sampleRateHz);
  const peak = new TruePeakOfPieces(sampleRateHz);
  for (let at = 0; at < frames; at += BLOCK) {
    const samples = track.read(first + at, Math.min(BLOCK, frames - at));
    voice.push(samples);
    peak.push(samples);
  }
  return { voiceLufs: voice.lufs(words), truePeakDbtp: amplitudeDb(peak.finish()) ?? SILENT_DBTP };
}
