import type { BiquadCoefficients } from '../biquad.ts';
import { BLOCK_WASM } from './block.wasm.ts';
import { type KernelExports, openKernel } from './kernel.ts';
import { plainSampleBlock, taking } from './plainSampleBlock.ts';
import { HISTORY, MOST_SAMPLES, type SampleBlock, SECTIONS, STRETCH, TAPS, THROUGH } from './sampleBlock.types.ts';

interface BlockExports extends KernelExports, Pick<SampleBlock, 'extremes' | 'sums' | 'breaks' | 'weighted' | 'gather' | 'crests' | 'over'> {
  open(): void;
  historyPlace(): number;
  mostPlace(): number;
  leastPlace(): number;
  filtersPlace(): number;
  tapsPlace(): number;
  resultsPlace(): number;
  changesPlace(): number;
  changes(count: number): void;
  peak(from: number, to: number, phases: number): number;
}

/** An empty block, in the fastest form that runs here. */
export const openSampleBlock = (): SampleBlock => kernelSampleBlock() ?? plainSampleBlock();

const padded = (sections: readonly BiquadCoefficients[]) => Array.from({ length: SECTIONS }, (_, index) => sections[index] ?? THROUGH);

/** In WebAssembly with SIMD; null where there is none. */
export function kernelSampleBlock(): SampleBlock | null {
  const kernel = openKernel<BlockExports>(BLOCK_WASM);
  if (!kernel) return null;
  kernel.open();
  const { buffer } = kernel.memory;
  const all = new Float64Array(buffer, kernel.historyPlace(), HISTORY + MOST_SAMPLES);
  const filters = new Float64Array(buffer, kernel.filtersPlace(), SECTIONS * 5 * 2);
  const taps = new Float64Array(buffer, kernel.tapsPlace(), 3 * TAPS);
  let phaseCount = 0;
  const { extremes, sums, breaks, weighted, gather, crests, over } = kernel;
  return {
    samples: all.subarray(HISTORY),
    most: new Float64Array(buffer, kernel.mostPlace(), MOST_SAMPLES / STRETCH),
    least: new Float64Array(buffer, kernel.leastPlace(), MOST_SAMPLES / STRETCH),
    results: new Float64Array(buffer, kernel.resultsPlace(), 3),
    changes: new Float64Array(buffer, kernel.changesPlace(), MOST_SAMPLES),
    take: taking(all),
    differ: kernel.changes,
    setFilters(one, other) {
      const [first, second] = [padded(one), padded(other)];
      for (let section = 0; section < SECTIONS; section++) {
        const [a, b] = [first[section] as BiquadCoefficients, second[section] as BiquadCoefficients];
        filters.set([a.b0, b.b0, a.b1, b.b1, a.b2, b.b2, a.a1, b.a1, a.a2, b.a2], section * 10);
      }
    },
    setPhases(phases) {
      phaseCount = phases.length;
      phases.forEach((phase, index) => {
        taps.set(phase, index * TAPS);
      });
    },
    peak: (from, to) => kernel.peak(from, to, phaseCount),
    extremes,
    sums,
    breaks,
    weighted,
    gather,
    crests,
    over,
  };
}
