import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { filled } from '../filled.ts';
import { interpolated, sincWeights } from '../resample.ts';
import { kernelInterpolation, plainInterpolation } from './interpolation.ts';

describe('a signal between its samples', () => {
  it('is the same in the kernel and in its plain form, within 1e-9 of full scale, wherever it is read', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.integer({ min: 0, max: 3000 }),
        fc.double({ min: -20_000, max: 20_000, noNaN: true }),
        fc.double({ min: 0.2, max: 7, noNaN: true }),
        fc.integer({ min: 0, max: 20_000 }),
        (seed, length, start, step, count) => {
          const random = randomSource(seed);
          const samples = filled(length, () => random.normal());
          const reach = 10 + (seed % 60);
          const weights = sincWeights(Math.min(1, 1 / step), reach);
          const [kernel, plain] = [kernelInterpolation(weights, 2 * reach, reach - 1)!, plainInterpolation(weights, 2 * reach, reach - 1)];
          const [one, other] = [kernel(samples, start, step, count), plain(samples, start, step, count)];
          expect(one).toHaveLength(count);
          expect(other).toHaveLength(count);
          expect(one.reduce((worst, value, index) => Math.max(worst, Math.abs(value - (other[index] as number))), 0)).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('of a sine is that sine, 80 dB under it, up to 20 kHz of 48', () => {
    for (const hz of [100, 997, 10_007, 20_000]) {
      const at = (place: number) => Math.sin((2 * Math.PI * hz * place) / 48_000);
      const samples = filled(30_000, (place) => at(place));
      const [start, step] = [500.37, 1 + 40e-6];
      const read = interpolated(samples, start, step, 29_000);
      expect(read.reduce((worst, value, index) => Math.max(worst, Math.abs(value - at(start + index * step))), 0)).toBeLessThan(1e-4);
    }
  });

  it('is silence outside of the signal', () => {
    const one = new Float64Array(100).fill(1);
    expect([...interpolated(one, -5000, 1.5, 3000), ...interpolated(one, 200, 1, 50)].every((value) => value === 0)).toBe(true);
    expect(interpolated(one, 50, 1, 1)[0]).toBeCloseTo(1, 3);
  });
});
