import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { filled } from '../filled.ts';
import { kernelHalving, PlainHalving } from './halving.ts';

describe('halving of a rate', () => {
  it('is the same in the kernel and in its plain form, within 1e-12 of full scale, in blocks of any length', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.array(fc.integer({ min: 1, max: 700 }), { minLength: 1, maxLength: 8 }), (seed, blocks) => {
        const random = randomSource(seed);
        const both = [new PlainHalving(), kernelHalving()!];
        for (const count of blocks) {
          const samples = filled(count, () => random.normal());
          const [plain, kernel] = both.map((halving) => {
            const out = new Float64Array(count);
            return out.slice(0, halving.halve(samples, count, out));
          }) as [Float64Array, Float64Array];
          expect(kernel).toHaveLength(plain.length);
          plain.forEach((value, index) => expect(kernel[index]).toBeCloseTo(value, 12));
        }
      }),
    );
  });

  it('lets a constant through as it is, and takes away what alternates', () => {
    for (const halving of [new PlainHalving(), kernelHalving()!]) {
      const out = new Float64Array(50);
      const count = halving.halve(
        filled(100, (n) => 0.5 + (n % 2 === 0 ? 0.25 : -0.25)),
        100,
        out,
      );
      expect(count).toBe(50);
      for (const value of out.subarray(4)) expect(value).toBeCloseTo(0.5, 12);
    }
  });
});
