import FFT from 'fft.js';
import { filled } from '../filled.ts';
import { type KernelExports, openKernel } from './kernel.ts';
import { SPECTRUM_WASM } from './spectrum.wasm.ts';

/** Powers of two frames at once: one goes through a complex transform as its real part, the other as its imaginary part. */
export interface FramePowers {
  /** Where the two frames go, one after the other. */
  readonly frames: Float64Array;
  /** Powers of the bins of the first and of the second, after {@link run}. */
  readonly first: Float64Array;
  readonly second: Float64Array;
  /** Every power is multiplied by `scale`; bins but the first and the last count for themselves and their mirror. */
  run(scale: number): void;
}

interface SpectrumExports extends KernelExports {
  open(size: number): void;
  windowPlace(): number;
  turnsPlace(): number;
  framesPlace(): number;
  powersPlace(): number;
  powers(scale: number): void;
}

const known = new Map<number, FramePowers>();

/**
 * The fastest form for frames of a size behind a Hann window. All who ask for a size share one, so what
 * comes out must be used before anything else is put in.
 * @param size a power of two from 8 up
 */
export function framePowers(size: number): FramePowers {
  const own = known.get(size) ?? kernelFramePowers(size) ?? plainFramePowers(size);
  known.set(size, own);
  return own;
}

export const hannWindow = (size: number): Float64Array => filled(size, (index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / size));

/** In WebAssembly with SIMD; null where there is none. */
export function kernelFramePowers(size: number): FramePowers | null {
  const kernel = openKernel<SpectrumExports>(SPECTRUM_WASM);
  if (!kernel) return null;
  kernel.open(size);
  const { buffer } = kernel.memory;
  const bins = size / 2 + 1;
  new Float64Array(buffer, kernel.windowPlace(), size).set(hannWindow(size));
  const turns = new Float64Array(buffer, kernel.turnsPlace(), 2 * size);
  for (let turn = 0; turn < size; turn++) {
    turns[2 * turn] = Math.cos((2 * Math.PI * turn) / size);
    turns[2 * turn + 1] = -Math.sin((2 * Math.PI * turn) / size);
  }
  return {
    frames: new Float64Array(buffer, kernel.framesPlace(), 2 * size),
    first: new Float64Array(buffer, kernel.powersPlace(), bins),
    second: new Float64Array(buffer, kernel.powersPlace() + bins * Float64Array.BYTES_PER_ELEMENT, bins),
    run: kernel.powers,
  };
}

/** The same in plain TypeScript. */
export function plainFramePowers(size: number): FramePowers {
  const fft = new FFT(size);
  const window = hannWindow(size);
  const pair = new Float64Array(2 * size);
  const spectrum = fft.createComplexArray() as number[];
  const half = size / 2;
  const [frames, first, second] = [new Float64Array(2 * size), new Float64Array(half + 1), new Float64Array(half + 1)];
  return {
    frames,
    first,
    second,
    run(scale) {
      for (let index = 0; index < size; index++) {
        const weight = window[index] as number;
        pair[2 * index] = weight * (frames[index] as number);
        pair[2 * index + 1] = weight * (frames[size + index] as number);
      }
      fft.transform(spectrum, pair as unknown as number[]);
      for (let bin = 0, at = 0, mirror = 0; bin <= half; bin++, at += 2, mirror = 2 * (size - bin)) {
        const zr = spectrum[at] as number;
        const zi = spectrum[at + 1] as number;
        const mr = spectrum[mirror] as number;
        const mi = spectrum[mirror + 1] as number;
        // The even part of the transform is the first frame's, the odd part the second's.
        const factor = bin === 0 || bin === half ? scale / 2 : scale;
        first[bin] = ((zr + mr) * (zr + mr) + (zi - mi) * (zi - mi)) * factor;
        second[bin] = ((zi + mi) * (zi + mi) + (mr - zr) * (mr - zr)) * factor;
      }
    },
  };
}
