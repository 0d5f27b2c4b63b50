import FFT from 'fft.js';
import { PRINT_STEP_S, type SoundPrint } from './soundPrint.ts';

/** Where one sound may lie in another. */
export interface Likeness {
  /** A moment t of the first is at t + lagS of the second. */
  lagS: number;
  /** Correlation of the two prints there, over all that they have in common: 1 is the same. */
  score: number;
  /** How far that stands over what other places have, in their standard deviations. */
  standsOut: number;
  overlapS: number;
}

/** Less in common than this, or than half of the shorter, says nothing. */
const LEAST_OVERLAP_S = 4;
/** Places nearer than this are the same. */
const APART_S = 0.5;

/**
 * The places at which two sounds are most alike, best first.
 * @param most so many at most, {@link APART_S} apart
 */
export function likenesses(a: SoundPrint, b: SoundPrint, most: number): Likeness[] {
  const [lengthA, lengthB] = [stepsOf(a), stepsOf(b)];
  const least = Math.ceil(Math.min(LEAST_OVERLAP_S / PRINT_STEP_S, Math.min(lengthA, lengthB) / 2));
  const [first, last] = [least - lengthA, lengthB - least];
  if (least < 1 || last < first) return [];
  const correlation = correlated(a, b);
  const overlap = (lag: number) => Math.min(lengthA, lengthB - lag) - Math.max(0, -lag);
  const [energyA, energyB] = [energyUpTo(a), energyUpTo(b)];
  const scores = new Float64Array(last - first + 1);
  const sureties = new Float64Array(scores.length);
  let [sum, squares] = [0, 0];
  for (let lag = first; lag <= last; lag++) {
    const energy = energyA(-lag, lengthB - lag) * energyB(lag, lengthA + lag);
    const score = energy > 0 ? correlation(lag) / Math.sqrt(energy) : 0;
    // By chance a short overlap agrees more: the spread of chance falls with the root of its length.
    const surety = score * Math.sqrt(overlap(lag));
    scores[lag - first] = score;
    sureties[lag - first] = surety;
    sum += surety;
    squares += surety * surety;
  }
  const mean = sum / scores.length;
  const spread = Math.sqrt(Math.max(1e-12, squares / scores.length - mean * mean));
  return peaks(sureties, most).map((index) => {
    const lag = index + first;
    return { lagS: lag * PRINT_STEP_S, score: scores[index] as number, standsOut: ((sureties[index] as number) - mean) / spread, overlapS: overlap(lag) * PRINT_STEP_S };
  });
}

const stepsOf = ({ bands }: SoundPrint) => bands[0]?.length ?? 0;

/** The largest values, {@link APART_S} apart, largest first. */
function peaks(values: Float64Array, most: number): number[] {
  const apart = Math.round(APART_S / PRINT_STEP_S);
  const taken = new Uint8Array(values.length);
  const found: number[] = [];
  while (found.length < most) {
    let best = -1;
    for (let index = 0; index < values.length; index++) {
      const value = values[index] as number;
      if (taken[index] === 0 && value > 0 && (best < 0 || value > (values[best] as number))) best = index;
    }
    if (best < 0) break;
    taken.fill(1, Math.max(0, best - apart), best + apart + 1);
    found.push(best);
  }
  return found;
}

/**
 * Sum of the correlations of all bands, at every lag of the second against the first. Two bands go through one complex transform, as
 * real and imaginary part: the real part of the product of the one, turned over, with the other is the sum of both correlations.
 */
function correlated(a: SoundPrint, b: SoundPrint): (lag: number) => number {
  const size = 2 ** Math.ceil(Math.log2(stepsOf(a) + stepsOf(b)));
  const fft = new FFT(size);
  const cross = fft.createComplexArray() as number[];
  cross.fill(0);
  const [ofA, ofB, packed] = [fft.createComplexArray(), fft.createComplexArray(), fft.createComplexArray()] as [number[], number[], number[]];
  const transform = ({ bands }: SoundPrint, band: number, into: number[]) => {
    packed.fill(0);
    for (const [part, curve] of [bands[band], bands[band + 1]].entries()) curve?.forEach((value, step) => (packed[2 * step + part] = value));
    fft.transform(into, packed);
  };
  for (let band = 0; band < a.bands.length; band += 2) {
    transform(a, band, ofA);
    transform(b, band, ofB);
    for (let at = 0; at < 2 * size; at += 2) {
      const [ar, ai, br, bi] = [ofA[at] as number, ofA[at + 1] as number, ofB[at] as number, ofB[at + 1] as number];
      cross[at] = (cross[at] as number) + ar * br + ai * bi;
      cross[at + 1] = (cross[at + 1] as number) + ar * bi - ai * br;
    }
  }
  fft.inverseTransform(packed, cross);
  return (lag) => packed[2 * ((lag + size) % size)] as number;
}

/** Energy of a print between two of its steps. */
function energyUpTo({ bands }: SoundPrint): (from: number, to: number) => number {
  const length = bands[0]?.length ?? 0;
  const sums = new Float64Array(length + 1);
  for (let step = 0; step < length; step++) {
    let energy = 0;
    for (const curve of bands) energy += (curve[step] as number) ** 2;
    sums[step + 1] = (sums[step] as number) + energy;
  }
  return (from, to) => (sums[Math.max(0, Math.min(length, to))] as number) - (sums[Math.max(0, Math.min(length, from))] as number);
}
