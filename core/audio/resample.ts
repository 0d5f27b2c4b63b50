import { kaiser } from './kaiser.ts';
import { type Interpolation, openInterpolation, PHASES } from './kernels/interpolation.ts';

const HALF_TAPS = 24;
const KAISER = 9;

/**
 * Changes the sample rate by a windowed sinc (Kaiser, about 90 dB down), interpolated between 512
 * tabulated phases. Going down, the cut-off moves with the lower rate.
 * @returns the samples at `toHz`; the same array when the rates are equal
 */
export function resample(samples: Float64Array, fromHz: number, toHz: number): Float64Array {
  if (fromHz === toHz) return samples;
  return interpolated(samples, 0, fromHz / toHz, Math.round((samples.length * toHz) / fromHz));
}

/**
 * Reads a signal between its samples: `count` values from place `start` on, `step` samples apart. What
 * lies outside the signal is silence.
 */
export function interpolated(samples: Float64Array, start: number, step: number, count: number): Float64Array {
  return sincAt(cutoffOf(step))(samples, start, step, count);
}

/** How many samples to either side of a place {@link interpolated} looks at. */
export const reachOf = (step: number): number => Math.ceil(HALF_TAPS / cutoffOf(step));

const cutoffOf = (step: number): number => Math.min(1, 1 / step) * (Math.abs(step - 1) < 0.001 ? 1 : 0.96);

const known = new Map<number, Interpolation>();

function sincAt(cutoff: number): Interpolation {
  const before = known.get(cutoff);
  if (before) return before;
  if (known.size > 16) known.clear();
  const reach = Math.ceil(HALF_TAPS / cutoff);
  const made = openInterpolation(sincWeights(cutoff, reach), 2 * reach, reach - 1);
  known.set(cutoff, made);
  return made;
}

/** The sinc at 512 places between two samples and at the second of them, `reach` weights to either side. */
export function sincWeights(cutoff: number, reach: number): Float64Array {
  const weights = new Float64Array((PHASES + 1) * 2 * reach);
  for (let phase = 0; phase <= PHASES; phase++) {
    for (let tap = -reach + 1; tap <= reach; tap++) {
      const t = tap - phase / PHASES;
      const x = Math.PI * t * cutoff;
      const window = kaiser(t / reach, KAISER);
      weights[phase * 2 * reach + tap + reach - 1] = cutoff * (x === 0 ? 1 : Math.sin(x) / x) * window;
    }
  }
  return weights;
}
