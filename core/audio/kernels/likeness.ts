import { type KernelExports, openKernel } from './kernel.ts';
import { LIKENESS_WASM } from './likeness.wasm.ts';

/** How like a stretch of samples is to what came before it. */
export interface Likeness {
  /** Where the samples lie. */
  readonly samples: Float64Array;
  /**
   * Largest normalised correlation of the `window` samples before `end` with what was `shortest` to `longest`
   * samples before, 0 to 1; 0 where their energy is under `silence`. One sample more must lie before all that.
   */
  strongest(end: number, window: number, shortest: number, longest: number, silence: number): number;
  /**
   * The distance, from `longest` down to `shortest`, at which the `alike` samples from `at` on are as they were,
   * within a share of their mean size; 0 where there is none, or where that size is under `least`.
   */
  lagAt(at: number, alike: number, shortest: number, longest: number, share: number, least: number): number;
}

interface LikenessExports extends KernelExports, Omit<Likeness, 'samples'> {
  open(samples: number): void;
  samplesPlace(): number;
}

/** Room for so many samples, in the fastest form that runs here. */
export const openLikeness = (samples: number): Likeness => kernelLikeness(samples) ?? plainLikeness(samples);

/** In WebAssembly with SIMD; null where there is none. */
export function kernelLikeness(samples: number): Likeness | null {
  const kernel = openKernel<LikenessExports>(LIKENESS_WASM);
  if (!kernel) return null;
  kernel.open(samples);
  return { samples: new Float64Array(kernel.memory.buffer, kernel.samplesPlace(), samples), strongest: kernel.strongest, lagAt: kernel.lagAt };
}

/** The same in plain TypeScript. */
export function plainLikeness(count: number): Likeness {
  const samples = new Float64Array(count);
  const isAlike = (at: number, lag: number, alike: number, tolerance: number) => {
    let index = at;
    while (index < at + alike && Math.abs((samples[index] as number) - (samples[index - lag] as number)) <= tolerance) index++;
    return index === at + alike;
  };
  return {
    samples,
    strongest(end, window, shortest, longest, silence) {
      const start = end - window;
      let own = 0;
      for (let at = start; at < end; at++) own += (samples[at] as number) * (samples[at] as number);
      if (own < silence) return 0;
      let before = 0;
      for (let at = start - shortest; at < end - shortest; at++) before += (samples[at] as number) * (samples[at] as number);
      let best = 0;
      for (let lag = shortest; lag <= longest; lag++) {
        let product = 0;
        for (let at = start; at < end; at++) product += (samples[at] as number) * (samples[at - lag] as number);
        // The square root is taken only of what may be the largest.
        if (product > 0 && product * product > best * best * own * before) best = product / Math.sqrt(Math.max(own * before, 1e-30));
        const enters = samples[start - lag - 1] as number;
        const leaves = samples[end - lag - 1] as number;
        before = Math.max(0, before + enters * enters - leaves * leaves);
      }
      return Math.min(1, best);
    },
    lagAt(at, alike, shortest, longest, share, least) {
      let size = 0;
      let most = 0;
      let rarest = at;
      for (let index = at; index < at + alike; index++) {
        const own = Math.abs(samples[index] as number);
        size += own;
        if (own > most) {
          most = own;
          rarest = index;
        }
      }
      size /= alike;
      if (size < least) return 0;
      const tolerance = share * size;
      for (let lag = longest; lag >= shortest; lag--) {
        // The largest is the rarest, so it is compared first.
        if (Math.abs((samples[rarest - lag] as number) - (samples[rarest] as number)) <= tolerance && isAlike(at, lag, alike, tolerance)) return lag;
      }
      return 0;
    },
  };
}
