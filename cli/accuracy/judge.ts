import { bufferSource } from '@marvet/core/audio/byteSource';
import { writeWav } from '@marvet/core/audio/writeWav';
import type { EventKind } from '@marvet/core/domain/measureId';
import { measureFile } from '@marvet/core/measure/report';
import type { AudioEvent, ChannelReport } from '@marvet/core/measure/report.types';
import { type LabelledEvent, labelledTake } from '@marvet/core/simulate/labelledTake';
import { randomSource } from '@marvet/core/simulate/random';
import { type Group, specOf } from './specs.ts';

/** How a take was judged: errors of figures against the truth, and events found, missed and invented. */
export interface Judged {
  seed: string;
  group: Group;
  lengthS: number;
  /** Wind blows all the time in it; its truth names the gusts. */
  windy: boolean;
  errors: Partial<Record<AccuracyFigure, number>>;
  truth: LabelledEvent[];
  found: AudioEvent[];
}

export const ACCURACY_FIGURES = ['floorDbfs', 'floorSlopedDbfs', 'sibilanceDb', 'proximityDb', 'pumpingDb', 'reverberation'] as const;
export type AccuracyFigure = (typeof ACCURACY_FIGURES)[number];

/** Noise of the words alone, -90 dBFS. */
const TRACE = 10 ** (-90 / 20);

/** An event is found when one of its kind lies within this of it. */
const TOLERANCE_S = 0.06;

export function judge(seed: string, group: Group, voices: readonly (readonly Float64Array[])[]): Judged {
  const spec = specOf(seed, group, voices);
  const { samples, truth } = labelledTake(spec);
  const report = reportOf(samples, spec.rateHz);
  const errors: Judged['errors'] = {};
  const steady = group === 'clean' || group === 'room';
  if (steady && report.noise.floorDbfs !== null) errors[spec.noiseSlopeDb === 0 ? 'floorDbfs' : 'floorSlopedDbfs'] = report.noise.floorDbfs - truth.floorDbfs;
  if (steady) {
    // A trace of noise keeps pauses pauses: a voice in digital silence has none of its own.
    const random = randomSource(1);
    const clean = reportOf(
      truth.cleanVoice.map((x) => x + TRACE * random.normal()),
      spec.rateHz,
    );
    for (const id of ['sibilanceDb', 'proximityDb'] as const) {
      const [is, should] = [report.character[id], clean.character[id]];
      if (is !== null && should !== null) errors[id] = is - should;
    }
  }
  if (group === 'room' && truth.reverberationS !== null && report.character.reverberationS !== null) {
    errors.reverberation = report.character.reverberationS / truth.reverberationS - 1;
  }
  if (truth.gainDb && report.character.pumpingDb !== null) errors.pumpingDb = report.character.pumpingDb - pumpingTruth(truth.gainDb, spec.rateHz, report);
  return { seed, group, lengthS: samples.length / spec.rateHz, windy: spec.wind !== null, errors, truth: truth.events, found: report.events };
}

export function reportOf(samples: Float64Array, rateHz: number): ChannelReport {
  const bytes = writeWav([samples], { encoding: 'float', bitDepth: 64, sampleRateHz: rateHz });
  return measureFile(bufferSource(bytes)).report.channels[0] as ChannelReport;
}

/** What the automatic level did in the pauses between words: the gain at their end less that shortly after their start. */
function pumpingTruth(gainDb: Float64Array, rateHz: number, report: ChannelReport): number {
  const at = (timeS: number) => gainDb[Math.min(gainDb.length - 1, Math.round(timeS * rateHz))] as number;
  // As the measure does: only between two words is the gain sure to have been taken down before and after.
  const firstWordS = report.activity.speech[0]?.[0] ?? 0;
  const lastWordS = report.activity.speech.at(-1)?.[1] ?? 0;
  const between = report.activity.pause.filter(([from, to]) => from > firstWordS && to < lastWordS && to - from >= 0.44);
  const rises = between.map(([from, to]) => ({ rise: at(to - 0.09) - at(from + 0.25), weight: to - from })).sort((a, b) => a.rise - b.rise);
  const half = rises.reduce((sum, each) => sum + each.weight, 0) / 2;
  let passed = 0;
  for (const { rise, weight } of rises) {
    passed += weight;
    if (passed >= half) return rise;
  }
  return 0;
}

/** Truth found, truth missed, and events that were never there, of one kind. */
export function score(takes: readonly Judged[], kind: EventKind): { found: number; missed: number; invented: number; right: number } {
  const result = { found: 0, missed: 0, invented: 0, right: 0 };
  for (const take of takes) {
    const truth = take.truth.filter((event) => event.kind === kind);
    const found = take.found.filter((event) => event.kind === kind);
    const meet = (a: { startS: number; endS: number }, b: { startS: number; endS: number }) => a.startS <= b.endS + TOLERANCE_S && a.endS >= b.startS - TOLERANCE_S;
    for (const event of truth) result[found.some((other) => meet(event, other)) ? 'found' : 'missed']++;
    for (const event of found) result[(kind === 'wind' && take.windy) || truth.some((other) => meet(event, other)) ? 'right' : 'invented']++;
  }
  return result;
}
