import type { FrameTalker } from '../domain/frame.ts';
import type { Acoustics } from '../domain/station.ts';

/** What all microphones hear of the same moment. */
export interface Moment {
  spoken: Float64Array;
  /** From all around; null where it is not known. */
  around: Float64Array | null;
  place: Acoustics;
  talkers: readonly FrameTalker[];
  rateHz: number;
  seed: string;
}

/** What one microphone takes in, before its own noise; 1 is 1 Pa. */
export interface TakenIn {
  sound: Float64Array;
  screen: string;
}

/** Signals one on the other; those that are not there add nothing. */
export function sumOf(signals: readonly (Float64Array | null)[], length: number): Float64Array {
  const sum = new Float64Array(length);
  for (const signal of signals) if (signal) for (let index = 0; index < length; index++) sum[index] = (sum[index] as number) + (signal[index] as number);
  return sum;
}
