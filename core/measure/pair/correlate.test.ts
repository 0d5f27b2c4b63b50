import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { whiteNoise } from '../../testing/signals.ts';
import { crossCorrelation, peakOf } from './correlate.ts';

const LENGTH = 600;
/** A stretch of noise, and the same a number of samples later. */
function delayed(seed: number, lag: number, gain: number): [Float64Array, Float64Array] {
  const noise = whiteNoise(-20, 0.05, seed);
  const from = 400;
  return [noise.slice(from, from + LENGTH), noise.slice(from - lag, from - lag + LENGTH).map((value) => value * gain)];
}

describe('correlation of two channels', () => {
  it.each([0, 0.5, 1])('with sharpness %f finds the lag, whichever way and however loud', (sharpness) => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), fc.integer({ min: -120, max: 120 }), fc.double({ min: 0.05, max: 8, noNaN: true }), (seed, lag, gain) => {
        const [a, b] = delayed(seed, lag, gain);
        const peak = peakOf(crossCorrelation(a, b, sharpness), -200, 200);
        expect(peak.lag).toBeCloseTo(lag, 0);
        expect(peak.sign).toBe(1);
        expect(peak.prominence).toBeGreaterThan(3);
      }),
      { numRuns: 25 },
    );
  });

  it('tells a line whose poles are exchanged', () => {
    const [a, b] = delayed(3, 17, -0.5);
    expect(peakOf(crossCorrelation(a, b, 0.5), -100, 100)).toMatchObject({ sign: -1, lag: expect.closeTo(17, 0) });
  });

  it('is at each lag the sum of products, where it is plain', () => {
    const a = Float64Array.from([1, 2, 0, -1]);
    const b = Float64Array.from([0, 1, 2, 0]);
    const { at } = crossCorrelation(a, b, 0);
    const products = (lag: number) => a.reduce((sum, value, index) => sum + value * (b[index + lag] ?? 0), 0);
    // Both are scaled alike; their ratio to the largest is what counts.
    const largest = at(1) / products(1);
    for (let lag = -3; lag <= 3; lag++) expect(Math.abs(at(lag))).toBeCloseTo(Math.abs(products(lag) * largest), 9);
  });

  it('turned round has the lag turned round', () => {
    const [a, b] = delayed(9, 31, 1);
    expect(peakOf(crossCorrelation(b, a, 0.5), -100, 100).lag).toBeCloseTo(-peakOf(crossCorrelation(a, b, 0.5), -100, 100).lag, 6);
  });
});
