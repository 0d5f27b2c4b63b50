import { INTERPOLATION_WASM } from './interpolation.wasm.ts';
import { type KernelExports, openKernel } from './kernel.ts';

/** Rows of weights to a sample, and one more, which is the first of the next. */
export const PHASES = 512;
/** So many values are worked out at once, of no more samples than fit. */
const [MOST_VALUES, MOST_SAMPLES] = [8192, 65_536];

/**
 * Reads a signal between its samples: `count` values from place `start` on, `step` samples apart. What lies
 * outside the signal is silence.
 */
export type Interpolation = (samples: Float64Array, start: number, step: number, count: number) => Float64Array;

interface InterpolationExports extends KernelExports {
  open(width: number, mostSamples: number, mostValues: number): void;
  weightsPlace(): number;
  samplesPlace(): number;
  valuesPlace(): number;
  run(start: number, step: number, count: number): void;
}

/**
 * The fastest form that runs here.
 * @param weights PHASES + 1 rows of `width` weights; between two rows they are mixed
 * @param before how many of the weights lie on samples before the place that is read
 */
export const openInterpolation = (weights: Float64Array, width: number, before: number): Interpolation =>
  kernelInterpolation(weights, width, before) ?? plainInterpolation(weights, width, before);

/** In WebAssembly with SIMD; null where there is none. */
export function kernelInterpolation(weights: Float64Array, width: number, before: number): Interpolation | null {
  const kernel = openKernel<InterpolationExports>(INTERPOLATION_WASM);
  if (!kernel) return null;
  // Four weights are taken at a time: what is missing at the end of a row weighs nothing.
  const padded = Math.ceil(width / 4) * 4;
  const room = Math.max(MOST_SAMPLES, 2 * padded);
  kernel.open(padded, room, MOST_VALUES);
  const { buffer } = kernel.memory;
  const rows = new Float64Array(buffer, kernel.weightsPlace(), (PHASES + 1) * padded);
  for (let row = 0; row <= PHASES; row++) rows.set(weights.subarray(row * width, (row + 1) * width), row * padded);
  const block = new Float64Array(buffer, kernel.samplesPlace(), room);
  const values = new Float64Array(buffer, kernel.valuesPlace(), MOST_VALUES);
  return (samples, start, step, count) => {
    const out = new Float64Array(count);
    const atOnce = Math.max(1, Math.min(MOST_VALUES, Math.floor((room - padded - 2) / step)));
    for (let done = 0; done < count; done += atOnce) {
      const now = Math.min(atOnce, count - done);
      const at = start + done * step;
      const first = Math.floor(at) - before;
      const needed = Math.min(room, Math.ceil(now * step) + padded + 2);
      copyWithSilence(samples, first, block, needed);
      kernel.run(at - Math.floor(at), step, now);
      out.set(now === MOST_VALUES ? values : values.subarray(0, now), done);
    }
    return out;
  };
}

/** Fills `count` values of a block with samples from `first` on, and with silence where there are none. */
function copyWithSilence(samples: Float64Array, first: number, block: Float64Array, count: number): void {
  const from = Math.min(samples.length, Math.max(0, first));
  const end = Math.max(from, Math.min(samples.length, first + count));
  block.fill(0, 0, count);
  block.set(samples.subarray(from, end), from === end ? 0 : from - first);
}

/** The same in plain TypeScript. */
export function plainInterpolation(weights: Float64Array, width: number, before: number): Interpolation {
  return (samples, start, step, count) => {
    const out = new Float64Array(count);
    for (let index = 0; index < count; index++) {
      const at = start + index * step;
      const whole = Math.floor(at);
      const phase = (at - whole) * PHASES;
      const row = Math.min(PHASES - 1, Math.floor(phase));
      // A place a hair under a sample may be rounded up to it: that is the end of the last row, not a row of its own.
      // Places in an array are kept as integers: with -0 or a fraction among them the loop is many times slower.
      const lowRow = (row * width) | 0;
      const highRow = (lowRow + width) | 0;
      const from = whole - before;
      const first = from < 0 ? Math.min(width, -from) | 0 : 0;
      const end = Math.max(0, Math.min(width, samples.length - from)) | 0;
      let low = 0;
      let high = 0;
      for (let tap = first, place = from + first; tap < end; tap++, place++) {
        const sample = samples[place] as number;
        low += sample * (weights[lowRow + tap] as number);
        high += sample * (weights[highRow + tap] as number);
      }
      out[index] = low + (phase - row) * (high - low);
    }
    return out;
  };
}
