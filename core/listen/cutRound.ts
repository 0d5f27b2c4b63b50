import { amplitudeDb } from '../audio/decibel.ts';
import { align } from '../measure/pair/align.ts';
import type { PairTrack } from '../measure/pair/track.ts';
import type { Span } from '../measure/report.types.ts';
import { Extremes } from '../measure/tracks/extremes.ts';
import { TruePeak } from '../measure/truePeak.ts';
import { voiceLoudnessLufs } from './voiceLoudness.ts';

/** One recording of a round, before it is cut. */
export interface RoundSource {
  track: PairTrack;
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
  /** How much later it is than the first recording of the round; null where the two are not of one performance. */
  delayMs: number | null;
}

export interface RoundCut {
  cuts: Cut[];
  /** Length that all clips have. */
  lengthS: number;
}

/** What is heard before the first word; less where another word lies nearer, so that no slate is heard. */
const LEAD_S = 0.25;
/** Nobody compares clips longer than this; it bounds memory. */
export const LONGEST_CLIP_S = 120;
/** Sound around the performance that alignment may use. */
const AROUND_S = 2;
/** As many samples as are looked over for extremes at once. */
const BLOCK = 4096;
const SILENT_DBTP = -200;

/**
 * Cuts the recordings of a round to clips that begin at the same syllable and are equally long.
 * Recordings of one performance are aligned by their sound, so that the delay of a radio, or of a file
 * that was started later, is taken out; others each begin with their own performance.
 */
export function cutRound(sources: readonly RoundSource[]): RoundCut {
  const [first] = sources;
  if (!first) return { cuts: [], lengthS: 0 };
  const views = sources.map((source) => around(source));
  const reference = views[0] as View;
  const lags = views.map((view, index) => (index === 0 ? 0 : lagOf(view, reference)));
  const leadS = Math.min(...sources.map(leadOf));
  // In the reference's time: where the latest of the aligned performances begins, and where the earliest ends.
  const toReference = (index: number, atS: number) => atS - (views[index] as View).fromS - (lags[index] as number) + reference.fromS;
  const aligned = sources.flatMap((source, index) => (lags[index] === null ? [] : [{ source, index }]));
  const beginS = Math.max(...aligned.map(({ source, index }) => toReference(index, source.performance[0])));
  const endS = Math.min(...aligned.map(({ source, index }) => toReference(index, source.performance[1])));
  const starts = sources.map((source, index) => {
    const lag = lags[index] ?? null;
    if (lag === null) return Math.max(0, source.performance[0] - leadS);
    return beginS - leadS - reference.fromS + (views[index] as View).fromS + lag;
  });
  // A track that was started late begins for all where it begins.
  const lateS = Math.max(0, ...starts.map((startS) => -startS));
  const lengths = sources.map((source, index) => {
    const startS = (starts[index] as number) + lateS;
    const ownEndS = lags[index] === null ? source.performance[1] : Math.max(source.performance[0] + 0.4, endS - beginS + leadS + startS - lateS);
    return Math.min(ownEndS, source.track.frames / source.track.sampleRateHz) - startS;
  });
  const lengthS = Math.max(0.1, Math.min(LONGEST_CLIP_S, ...lengths));
  const cuts = sources.map(({ track, speech }, index): Cut => {
    const startS = (starts[index] as number) + lateS;
    const samples = track.read(Math.round(startS * track.sampleRateHz), Math.round(lengthS * track.sampleRateHz));
    const words = speech.flatMap(([from, to]): Span[] => (to > startS && from < startS + lengthS ? [[from - startS, to - startS]] : []));
    const lag = lags[index] ?? null;
    return {
      startS,
      voiceLufs: voiceLoudnessLufs(samples, track.sampleRateHz, words),
      truePeakDbtp: truePeakDbtp(samples, track.sampleRateHz),
      delayMs: lag === null ? null : (starts[index] as number) * 1000 - (starts[0] as number) * 1000,
    };
  });
  return { cuts, lengthS };
}

interface View {
  track: PairTrack;
  fromS: number;
}

/** The track from a little before its performance to a little after it. */
function around({ track, performance }: RoundSource): View {
  const { sampleRateHz } = track;
  const from = Math.max(0, Math.floor((performance[0] - AROUND_S) * sampleRateHz));
  const to = Math.min(track.frames, Math.ceil((Math.min(performance[1], performance[0] + LONGEST_CLIP_S) + AROUND_S) * sampleRateHz));
  return { fromS: from / sampleRateHz, track: { sampleRateHz, frames: to - from, read: (start, count) => track.read(from + start, count) } };
}

function lagOf(view: View, reference: View): number | null {
  return align(view.track, reference.track)?.latencyS ?? null;
}

function leadOf({ performance: [beginS], speech }: RoundSource): number {
  const before = speech.filter(([, endS]) => endS <= beginS + 1e-6).at(-1);
  return before ? Math.min(LEAD_S, Math.max(0, (beginS - before[1]) / 2)) : LEAD_S;
}

function truePeakDbtp(samples: Float64Array, sampleRateHz: number): number {
  const meter = new TruePeak(sampleRateHz);
  const extremes = new Extremes();
  for (let from = 0; from < samples.length; from += BLOCK) {
    const block = samples.subarray(from, Math.min(samples.length, from + BLOCK));
    extremes.push(block, block.length);
    meter.push(block, block.length, extremes);
  }
  return amplitudeDb(meter.finish()) ?? SILENT_DBTP;
}
