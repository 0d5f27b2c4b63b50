import FFT from 'fft.js';
import { bandEdgesHz, THIRD_OCTAVE_HZ } from '../../audio/bands.ts';
import { powerBetween } from '../../audio/powerSpectrum.ts';
import type { Warn } from '../family.ts';
import type { PairGroup } from '../report.types.ts';
import { type Alignment, align } from './align.ts';
import { eqMatch, levelFreeRms } from './eqMatch.ts';
import { type PairTrack, readAtTimes } from './track.ts';

const FRAME_S = 0.085;
/** Stretches spread over what both have in common; more of the same talk changes little. */
const MOST_STRETCHES = 40;
const STRETCH_S = 2;
/** Frames this far under the loud ones are pauses, in which two channels have little to do with each other. */
const PAUSE_UNDER_DB = 25;
const JUDGED_FROM_HZ = 100;
const JUDGED_TO_HZ = 10_000;
const NOTHING = 1e-14;
const MOST_SNR_DB = 120;

/** A pair with what could not be measured and why. */
export interface ComparedPair {
  pair: PairGroup;
  warnings: string[];
}

const NONE: PairGroup = {
  latencyMs: null,
  driftPpm: null,
  polarity: null,
  levelDiffDb: null,
  bandDiffDb: [],
  spectralDistanceDb: null,
  eqMatch: [],
  matchedDistanceDb: null,
  coherentSnrDb: null,
};

/**
 * Compares a channel with a reference of the same performance: aligned first, then level and bands of
 * the words, the equalisation that would make them alike, and how much of the channel is the reference
 * filtered and how much is something else.
 * @example measurePair(sampleTrack(lavalier, 48_000), sampleTrack(boom, 48_000), console.warn).latencyMs
 */
export function measurePair(channel: PairTrack, reference: PairTrack, warn: Warn): PairGroup {
  const alignment = align(channel, reference);
  if (!alignment) {
    warn('nothing in common with the reference was found: the pair could not be aligned');
    return NONE;
  }
  const spectra = commonSpectra(channel, reference, alignment);
  if (!spectra) {
    warn('too little is common with the reference to compare');
    return { ...NONE, ...timing(alignment) };
  }
  const { own, other, coherent, binHz } = spectra;
  const topHz = Math.min(channel.sampleRateHz, reference.sampleRateHz) / 2;
  const bandDiffDb = THIRD_OCTAVE_HZ.map((hz) => {
    const [low, high] = bandEdgesHz(hz);
    const [mine, theirs] = [powerBetween(own, binHz, low, high), powerBetween(other, binHz, low, high)];
    return high > topHz * 0.98 || mine < NOTHING || theirs < NOTHING ? null : 10 * Math.log10(mine / theirs);
  });
  const judged = THIRD_OCTAVE_HZ.map((hz, band) => ({ hz, difference: bandDiffDb[band] ?? null })).filter(
    (each): each is { hz: number; difference: number } => each.difference !== null && each.hz > JUDGED_FROM_HZ * 0.95 && each.hz < JUDGED_TO_HZ * 1.05,
  );
  const match = eqMatch(
    judged.map(({ hz }) => hz),
    judged.map(({ difference }) => difference),
  );
  const sum = (powers: Float64Array) => powerBetween(powers, binHz, 20, topHz * 0.98);
  const rest = sum(own) - sum(coherent);
  return {
    ...timing(alignment),
    levelDiffDb: 10 * Math.log10(sum(own) / sum(other)),
    bandDiffDb,
    spectralDistanceDb: levelFreeRms(judged.map(({ difference }) => difference)),
    eqMatch: match.filters,
    matchedDistanceDb: match.after,
    coherentSnrDb: sum(coherent) <= 0 ? null : Math.min(MOST_SNR_DB, 10 * Math.log10(sum(coherent) / Math.max(rest, 1e-30))),
  };
}

const timing = ({ latencyS, drift, polarity }: Alignment) => ({ latencyMs: latencyS * 1000, driftPpm: drift * 1e6, polarity });

interface CommonSpectra {
  own: Float64Array;
  other: Float64Array;
  /** What of the channel's power follows the reference. */
  coherent: Float64Array;
  binHz: number;
}

/** Spectra of both over the loud frames of what they have in common, and the part of the one that the other explains. */
function commonSpectra(channel: PairTrack, reference: PairTrack, { latencyS, drift }: Alignment): CommonSpectra | null {
  const rateHz = reference.sampleRateHz;
  const size = 2 ** Math.round(Math.log2(rateHz * FRAME_S));
  const bins = size / 2 + 1;
  const frames: { own: Float64Array; other: Float64Array; level: number }[] = [];
  for (const startS of stretches(channel, reference, latencyS)) {
    const count = Math.round(STRETCH_S * rateHz);
    const b = reference.read(Math.round(startS * rateHz), count);
    const atS = Math.round(startS * rateHz) / rateHz;
    const a = readAtTimes(channel, atS + latencyS + drift * atS, (1 + drift) / rateHz, count);
    for (let from = 0; from + size <= count; from += size / 2) {
      const other = b.subarray(from, from + size);
      frames.push({ own: a.subarray(from, from + size), other, level: 10 * Math.log10(other.reduce((sum, x) => sum + x * x, 0) / size + 1e-20) });
    }
  }
  const loud = frames.map(({ level }) => level).sort((x, y) => x - y)[Math.floor(frames.length * 0.95)] ?? 0;
  const used = frames.filter(({ level }) => level > loud - PAUSE_UNDER_DB && level > -150);
  if (used.length < 3) return null;
  const own = new Float64Array(bins);
  const other = new Float64Array(bins);
  const re = new Float64Array(bins);
  const im = new Float64Array(bins);
  const fft = new FFT(size);
  const block = fft.createComplexArray() as number[];
  const both = fft.createComplexArray() as number[];
  const scale = 2 / (size * size * 0.375 * used.length);
  for (const frame of used) {
    for (let index = 0; index < size; index++) {
      const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / size);
      block[2 * index] = (frame.own[index] as number) * window;
      block[2 * index + 1] = (frame.other[index] as number) * window;
    }
    fft.transform(both, block);
    for (let bin = 0; bin < bins; bin++) {
      const mirror = (size - bin) % size;
      const [zr, zi, mr, mi] = [both[2 * bin], both[2 * bin + 1], both[2 * mirror], both[2 * mirror + 1]] as [number, number, number, number];
      const [ar, ai, br, bi] = [(zr + mr) / 2, (zi - mi) / 2, (zi + mi) / 2, (mr - zr) / 2];
      own[bin] = (own[bin] as number) + scale * (ar * ar + ai * ai);
      other[bin] = (other[bin] as number) + scale * (br * br + bi * bi);
      re[bin] = (re[bin] as number) + scale * (ar * br + ai * bi);
      im[bin] = (im[bin] as number) + scale * (ai * br - ar * bi);
    }
  }
  const coherent = own.map((power, bin) => {
    const product = power * (other[bin] as number);
    const coherence = product > 0 ? Math.min(1, ((re[bin] as number) ** 2 + (im[bin] as number) ** 2) / product) : 0;
    // A few frames agree by chance by one part in their number.
    return power * Math.max(0, (coherence - 1 / used.length) / (1 - 1 / used.length));
  });
  return { own, other, coherent, binHz: rateHz / size };
}

/** Starts of the stretches in the reference, evenly over what both have. */
function stretches(channel: PairTrack, reference: PairTrack, latencyS: number): number[] {
  const fromS = Math.max(0, -latencyS);
  const toS = Math.min(reference.frames / reference.sampleRateHz, channel.frames / channel.sampleRateHz - latencyS) - STRETCH_S;
  if (toS <= fromS) return [Math.max(0, fromS)];
  const count = Math.min(MOST_STRETCHES, Math.floor((toS - fromS) / STRETCH_S) + 1);
  return Array.from({ length: count }, (_, index) => fromS + (count === 1 ? 0 : ((toS - fromS) * index) / (count - 1)));
}
