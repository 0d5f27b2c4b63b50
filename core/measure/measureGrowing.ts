import type { ByteSource } from '../audio/byteSource.ts';
import { narrowed } from '../audio/narrowed.ts';
import { readBlocks } from '../audio/readSamples.ts';
import type { WavLayout } from '../audio/wavFormat.ts';
import { longestChapterS } from './chapter.ts';
import { FileMeters, type MeasuredFile } from './fileMeters.ts';
import { measureLayout } from './report.ts';
import { type AudioEvent, DEFAULT_MEASURE_OPTIONS } from './report.types.ts';

/** New sound is looked at so often. */
const LOOK_EVERY_S = 3;
/** How far a look reaches back before what it tells, so that it knows the surroundings. */
const BEFORE_S = 6;
/** What begins in the last moments may go on: it is told at the next look. */
const AFTER_S = 1.5;

/** What was heard on a channel since the last look. */
export interface HeardWhileGrowing {
  channel: number;
  /** Times count from the start of the file. */
  events: AudioEvent[];
}

/** A file measured while it grew. */
export interface GrownFile {
  measured: MeasuredFile;
  /** Whether measuring it afterwards gives the same: chapters part a longer file evenly, and nobody knew its length. */
  final: boolean;
}

/** A file that somebody else is writing. */
export interface GrowingFile {
  source: ByteSource;
  /** Its layout with as many frames as are there now. */
  now(): WavLayout;
  /** Waits for more than so many frames; false once the file is closed and has no more. */
  waitFor(frames: number): boolean;
}

/**
 * Measures a file while it grows, so that its report is there when it ends. Every few seconds the newest
 * stretch is measured by itself as well, by the same measures, and what was heard in it is told.
 * @param longestS length of a chapter; a file that is no longer is measured as it would be afterwards
 */
export function measureGrowing(file: GrowingFile, onHeard: (heard: HeardWhileGrowing[]) => void, longestS = longestChapterS(file.now().format.channels)): GrownFile {
  const first = file.now();
  const { sampleRateHz } = first.format;
  const meters = new FileMeters(file.source, first, DEFAULT_MEASURE_OPTIONS, longestS);
  const total = { frames: 0, badSamples: 0 };
  let toldS = 0;
  while (file.waitFor(total.frames)) {
    const layout = file.now();
    const read = readBlocks(file.source, fromFrame(layout, total.frames), (channels, frames) => meters.push(channels, frames));
    total.frames += read.frames;
    total.badSamples += read.badSamples;
    if (read.frames === 0) break;
    const nowS = total.frames / sampleRateHz;
    if (nowS - toldS < LOOK_EVERY_S + AFTER_S) continue;
    const untilS = nowS - AFTER_S;
    onHeard(heardBetween(file.source, layout, toldS, untilS, nowS));
    toldS = untilS;
  }
  return { measured: meters.finish(file.now(), total), final: total.frames / sampleRateHz <= longestS };
}

function heardBetween(source: ByteSource, layout: WavLayout, fromS: number, untilS: number, nowS: number): HeardWhileGrowing[] {
  const startS = Math.max(0, fromS - BEFORE_S);
  const { report } = measureLayout(source, narrowed(layout, [startS, nowS]), DEFAULT_MEASURE_OPTIONS);
  return report.channels.map(({ index, events }) => ({
    channel: index,
    events: events.map((event) => ({ ...event, startS: event.startS + startS, endS: event.endS + startS })).filter((event) => event.startS >= fromS && event.startS < untilS),
  }));
}

/** A layout from a frame on, exactly. */
function fromFrame(layout: WavLayout, frame: number): WavLayout {
  const frames = layout.format.frames - frame;
  return { ...layout, dataOffset: layout.dataOffset + frame * layout.bytesPerFrame, format: { ...layout.format, frames, durationS: frames / layout.format.sampleRateHz } };
}
