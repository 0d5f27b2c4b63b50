import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { filled } from '../filled.ts';
import { aWeighting, kWeighting } from '../weighting.ts';
import { plainSampleBlock } from './plainSampleBlock.ts';
import { kernelSampleBlock } from './sampleBlock.ts';
import { MOST_SAMPLES, type SampleBlock, STRETCH, TAPS } from './sampleBlock.types.ts';

const RATE_HZ = 48_000;
const seeds = fc.integer({ min: 1, max: 1e6 });
const sizes = fc.array(fc.integer({ min: 1, max: MOST_SAMPLES }), { minLength: 1, maxLength: 4 });

/** What a block tells, asked in pieces that begin and end anywhere. */
function answers(block: SampleBlock, count: number, pieces: readonly number[]): number[] {
  const told: number[] = [];
  block.extremes(count);
  told.push(...block.most.subarray(0, Math.ceil(count / STRETCH)), ...block.least.subarray(0, Math.ceil(count / STRETCH)));
  block.differ(count);
  told.push(...block.changes.subarray(0, count));
  let from = 0;
  for (let index = 0; from < count; index++) {
    const to = Math.min(count, from + (pieces[index % pieces.length] as number));
    block.sums(from, to);
    told.push(...block.results.subarray(0, 3));
    block.breaks(from, to);
    told.push(...block.results.subarray(0, 2));
    block.weighted(from, to);
    told.push(...block.results.subarray(0, 2));
    // Of an odd number the kernel looks at one before it too, which is no less a peak.
    if ((to - from) % 2 === 0) told.push(block.peak(from, to));
    block.gather(from, to - from, 0);
    block.crests(to - from);
    told.push(...block.results.subarray(0, 2), block.over(to - from, 0.1, 1), block.over(to - from, 0.1, -1));
    from = to;
  }
  return told;
}

describe('the samples of a block', () => {
  it('are asked alike by the kernel and its plain form, within 1e-9 of full scale, block after block', () => {
    fc.assert(
      fc.property(seeds, sizes, fc.array(fc.integer({ min: 1, max: 200 }), { minLength: 1, maxLength: 4 }), (seed, blocks, pieces) => {
        const random = randomSource(seed);
        const both = [plainSampleBlock(), kernelSampleBlock()!];
        const phases = [1, 2, 3].map(() => filled(TAPS, () => random.normal() / 5));
        for (const block of both) {
          block.setFilters(aWeighting(RATE_HZ), kWeighting(RATE_HZ));
          block.setPhases(phases);
        }
        for (const count of blocks) {
          const samples = filled(count, () => 0.3 * random.normal());
          for (const block of both) block.take(samples, count);
          const [plain, kernel] = both.map((block) => answers(block, count, pieces)) as [number[], number[]];
          expect(kernel).toHaveLength(plain.length);
          plain.forEach((value, index) => expect(Math.abs(value - (kernel[index] as number))).toBeLessThan(1e-9 * Math.max(1, Math.abs(value))));
        }
      }),
      { numRuns: 25 },
    );
  });

  it.each([
    ['plain', plainSampleBlock],
    ['with SIMD', kernelSampleBlock],
  ] as const)('%s: sums, breaks and peaks of a known wave', (_, open) => {
    const block = open()!;
    block.take(Float64Array.of(1, -2, 3, -4, 5), 5);
    block.sums(1, 4);
    expect([...block.results]).toEqual([-3, 9, 29]);
    // Over a straight line a parabola errs by nothing; at the corner it errs by what the line turns.
    block.take(
      filled(40, (n) => 0.1 * n),
      40,
    );
    block.breaks(10, 40);
    expect(block.results[0]).toBeCloseTo(0, 12);
    // A phase that is nothing but its last tap gives the samples themselves.
    const last = new Float64Array(TAPS);
    last[TAPS - 1] = 1;
    block.setPhases([last]);
    expect(block.peak(10, 30)).toBeCloseTo(2.9, 12);
  });

  it('the kernel remembers the block before: cut in two, the energies are those of one', () => {
    const random = randomSource(5);
    const samples = filled(4000, () => random.normal());
    const whole = kernelSampleBlock()!;
    const parts = kernelSampleBlock()!;
    for (const block of [whole, parts]) block.setFilters(aWeighting(RATE_HZ), kWeighting(RATE_HZ));
    whole.take(samples, 4000);
    whole.weighted(0, 4000);
    let sum = 0;
    for (const [from, to] of [
      [0, 1237],
      [1237, 4000],
    ] as const) {
      parts.take(samples.subarray(from, to), to - from);
      parts.weighted(0, to - from);
      sum += parts.results[0] as number;
    }
    expect(sum).toBeCloseTo(whole.results[0] as number, 6);
  });
});
