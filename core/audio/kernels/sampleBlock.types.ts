import type { BiquadCoefficients } from '../biquad.ts';

/** The most samples of a block, how many of the one before stay in reach, and those of a stretch whose extremes are kept. */
export const MOST_SAMPLES = 4096;
export const HISTORY = 64;
export const STRETCH = 32;
/** A frame that is gathered has at most so many samples. */
export const MOST_IN_FRAME = 8192;
/** Length of an interpolator's phases. */
export const TAPS = 24;
/** Sections of each of the two filters; what is left of them lets everything through. */
export const SECTIONS = 3;
export const THROUGH: BiquadCoefficients = { b0: 1, b1: 0, b2: 0, a1: 0, a2: 0 };

/**
 * The samples of a channel, block by block, and what is asked of every one of them. Places are counted in the
 * block; results that are more than one lie in `results` until the next question.
 */
export interface SampleBlock {
  /** The samples of this block. */
  readonly samples: Float64Array;
  /** Highest and lowest sample of each stretch, after {@link extremes}. */
  readonly most: Float64Array;
  readonly least: Float64Array;
  readonly results: Float64Array;
  /** How far each sample is from the one before, after {@link differ}. */
  readonly changes: Float64Array;
  /** Takes the next block in, at most {@link MOST_SAMPLES}. */
  take(samples: Float64Array, frames: number): void;
  /** Changes of the first `count`. */
  differ(count: number): void;
  /** Highest and lowest of each {@link STRETCH} of the first `count`. */
  extremes(count: number): void;
  /** Sum, sum of magnitudes and sum of squares. */
  sums(from: number, to: number): void;
  /** Largest third difference, and the sum of their squares. */
  breaks(from: number, to: number): void;
  /** Energies behind the two filters of {@link setFilters}, which remember what came before. */
  weighted(from: number, to: number): void;
  setFilters(one: readonly BiquadCoefficients[], other: readonly BiquadCoefficients[]): void;
  /** Largest magnitude between samples, by the phases of {@link setPhases}. */
  peak(from: number, to: number): number;
  /** One phase or three, of {@link TAPS} values each; the last is for the sample itself. */
  setPhases(phases: readonly Float64Array[]): void;
  /** Takes `count` samples into a frame that may reach over blocks. */
  gather(from: number, count: number, into: number): void;
  /** Highest and lowest of the first `count` of the frame, and 0. */
  crests(count: number): void;
  /** How many of the first `count` of the frame are over a threshold, times a sign. */
  over(count: number, threshold: number, sign: 1 | -1): number;
}
