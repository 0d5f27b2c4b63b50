import { describe, expect, it } from 'vitest';
import { filter468, weighting468Db } from '../audio/weighting468.ts';
import { sine, whiteNoise } from '../testing/signals.ts';
import { QuasiPeakMeter, quasiPeak468 } from './quasiPeak468.ts';

const RATE_HZ = 48_000;

describe('weighting, ITU-R BS.468-4 table 1', () => {
  it.each([
    [31.5, -29.9, 2],
    [63, -23.9, 1.4],
    [100, -19.8, 1],
    [200, -13.8, 0.85],
    [400, -7.8, 0.7],
    [800, -1.9, 0.55],
    [1000, 0, 0.5],
    [2000, 5.6, 0.5],
    [3150, 9, 0.5],
    [4000, 10.5, 0.5],
    [5000, 11.7, 0.5],
    [6300, 12.2, 0.2],
    [7100, 12, 0.2],
    [8000, 11.4, 0.4],
    [9000, 10.1, 0.6],
    [10_000, 8.1, 0.8],
    [12_500, 0, 1.2],
    [14_000, -5.3, 1.4],
    [16_000, -11.7, 1.6],
    [20_000, -22.2, 2],
  ])('%f Hz: %f dB within %f', (hz, wanted, tolerance) => {
    expect(Math.abs(weighting468Db(hz) - wanted)).toBeLessThanOrEqual(tolerance);
    const out = filter468(sine(hz, 0, 0.6), RATE_HZ).subarray(12_000, 24_000);
    const rms = Math.sqrt(out.reduce((sum, x) => sum + x * x, 0) / out.length);
    expect(Math.abs(20 * Math.log10(rms * Math.SQRT2) - wanted)).toBeLessThanOrEqual(tolerance);
  });

  it.each([16_000, 44_100, 96_000])('is the same at %i Hz', (rateHz) => {
    const out = filter468(sine(5000, 0, 0.4, rateHz), rateHz).subarray(Math.round(rateHz * 0.2));
    const rms = Math.sqrt(out.reduce((sum, x) => sum + x * x, 0) / out.length);
    expect(Math.abs(20 * Math.log10(rms * Math.SQRT2) - 11.7)).toBeLessThanOrEqual(0.5);
  });
});

/** Highest reading on 5 kHz bursts, as a share of the reading on a steady 5 kHz tone. */
function burstShare(burstMs: number, everyMs: number, lengthS: number): number {
  const highest = (on: (ms: number) => boolean, seconds: number, fromS: number) => {
    const meter = new QuasiPeakMeter(RATE_HZ);
    let most = 0;
    for (let index = 0; index < seconds * RATE_HZ; index++) {
      const needle = meter.next(on((index / RATE_HZ) * 1000) ? Math.sin((2 * Math.PI * 5000 * index) / RATE_HZ) : 0);
      if (index >= fromS * RATE_HZ && needle > most) most = needle;
    }
    return most;
  };
  return highest((ms) => ms % everyMs < burstMs, lengthS, lengthS / 2) / highest(() => true, 2, 1.9);
}

describe('quasi-peak, ITU-R BS.468-4 clause 2: 5 kHz bursts against a steady tone', () => {
  it.each([
    [1, 0.135, 0.214],
    [2, 0.224, 0.316],
    [5, 0.34, 0.46],
    [10, 0.41, 0.55],
    [20, 0.44, 0.6],
    [50, 0.5, 0.68],
    [100, 0.58, 0.78],
    [200, 0.68, 0.92],
  ])('one burst of %i ms reads %f to %f', (burstMs, least, most) => {
    const share = burstShare(burstMs, 1e9, 0.4);
    // The needle still rises shortly after a burst, so the first half counts as well.
    const reading = Math.max(share, burstShare(burstMs, 1e9, 0.0001 + (2 * burstMs) / 1000));
    expect(reading).toBeGreaterThanOrEqual(least);
    expect(reading).toBeLessThanOrEqual(most);
  });

  it.each([
    [2, 0.43, 0.53],
    [10, 0.72, 0.82],
    [100, 0.94, 1],
  ])('bursts of 5 ms, %i a second, read %f to %f', (aSecond, least, most) => {
    const reading = burstShare(5, 1000 / aSecond, 3);
    expect(reading).toBeGreaterThanOrEqual(least);
    expect(reading).toBeLessThanOrEqual(most);
  });
});

describe('reading', () => {
  it('of a 1 kHz tone is its RMS', () => {
    expect(Math.abs((quasiPeak468([sine(1000, -20, 2)], RATE_HZ) ?? 0) + 23.01)).toBeLessThan(0.1);
  });

  it('of white noise lies 10 to 14 dB over its RMS, moves with its level, and does not mind pieces', () => {
    const noise = whiteNoise(-40, 3, 5);
    const whole = quasiPeak468([noise], RATE_HZ) ?? 0;
    expect(whole + 40).toBeGreaterThan(10);
    expect(whole + 40).toBeLessThan(14);
    expect((quasiPeak468([noise.map((x) => x / 10)], RATE_HZ) ?? 0) - whole).toBeCloseTo(-20, 3);
    const pieces = Array.from({ length: 12 }, (_, index) => noise.slice(index * 12_000, (index + 1) * 12_000));
    expect(Math.abs((quasiPeak468(pieces, RATE_HZ) ?? 0) - whole)).toBeLessThan(0.5);
  });

  it('of nothing is nothing', () => expect(quasiPeak468([], RATE_HZ)).toBeNull());
});
