import { describe, expect, it } from 'vitest';
import { reportOf, sine, whiteNoise } from '../testing/signals.ts';
import { THIRD_OCTAVE_HZ } from './bands.ts';
import { Biquad, cascadeDb, highPass, highShelf, lowPass, peaking } from './biquad.ts';
import { resample } from './resample.ts';
import { aWeighting, aWeightingDb, kWeighting } from './weighting.ts';

describe('K-weighting', () => {
  it('gives the coefficients that BS.1770-5 Annex 1 prints for 48 kHz', () => {
    const [shelf, pass] = kWeighting(48_000);
    const printed = [
      [shelf!.b0, 1.53512485958697],
      [shelf!.b1, -2.69169618940638],
      [shelf!.b2, 1.19839281085285],
      [shelf!.a1, -1.69065929318241],
      [shelf!.a2, 0.73248077421585],
      [pass!.b0, 1],
      [pass!.b1, -2],
      [pass!.b2, 1],
      [pass!.a1, -1.99004745483398],
      [pass!.a2, 0.99007225036621],
    ] as const;
    for (const [found, expected] of printed) expect(found).toBeCloseTo(expected, 10);
  });
});

describe('A weighting', () => {
  // IEC 61672-1:2013 table 3, at the exact base-ten frequencies 20 Hz to 20 kHz.
  const TABLE_DB = [
    -50.5, -44.7, -39.4, -34.6, -30.2, -26.2, -22.5, -19.1, -16.1, -13.4, -10.9, -8.6, -6.6, -4.8, -3.2, -1.9, -0.8, 0, 0.6, 1.0, 1.2, 1.3, 1.2, 1.0, 0.5, -0.1, -1.1, -2.5, -4.3,
    -6.6, -9.3,
  ];

  it('the definition rounds to the table', () => {
    THIRD_OCTAVE_HZ.forEach((hz, index) => {
      expect(Math.abs(aWeightingDb(hz) - TABLE_DB[index]!)).toBeLessThanOrEqual(0.051);
    });
  });

  it.each([48_000, 96_000])('the filter keeps to the table at %i Hz', (rate) => {
    THIRD_OCTAVE_HZ.forEach((hz, index) => {
      expect(Math.abs(cascadeDb(aWeighting(rate), hz, rate) - TABLE_DB[index]!)).toBeLessThanOrEqual(0.15);
    });
  });

  it.each([8000, 16_000, 22_050, 44_100, 192_000])('and to the definition within 0.35 dB at %i Hz, up to 0.45 of it', (rate) => {
    for (const hz of THIRD_OCTAVE_HZ.filter((each) => each <= 0.45 * rate)) {
      expect(Math.abs(cascadeDb(aWeighting(rate), hz, rate) - aWeightingDb(hz))).toBeLessThanOrEqual(0.35);
    }
  });
});

describe('second-order sections', () => {
  it.each([
    ['low-pass', [lowPass(1000, Math.SQRT1_2, 48_000)], 1000, -3.01],
    ['high-pass', [highPass(1000, Math.SQRT1_2, 48_000)], 1000, -3.01],
    ['peak', [peaking(1000, 6, 1, 48_000)], 1000, 6],
    ['shelf far above', [highShelf(1000, -8, 48_000)], 20_000, -8],
    ['shelf far below', [highShelf(1000, -8, 48_000)], 20, 0],
  ] as const)('%s', (_name, sections, hz, expected) => {
    expect(cascadeDb(sections, hz, 48_000)).toBeCloseTo(expected, 1);
  });

  it('do in blocks what they do at once', () => {
    const signal = whiteNoise(-20, 0.1);
    const once = Float64Array.from(signal);
    new Biquad(lowPass(500, 1, 48_000)).process(once, once, once.length);
    const parts = Float64Array.from(signal);
    const filter = new Biquad(lowPass(500, 1, 48_000));
    for (let at = 0; at < parts.length; at += 700) {
      const part = parts.subarray(at, at + 700);
      filter.process(part, part, part.length);
    }
    expect(parts).toEqual(once);
  });
});

describe('changing the sample rate', () => {
  it.each([
    [22_050, 48_000],
    [48_000, 44_100],
    [96_000, 48_000],
    [48_000, 16_000],
  ])('%i to %i Hz keeps length and level', (from, to) => {
    const out = resample(sine(1000, -6, 1, from), from, to);
    expect(out.length).toBe(to);
    const { rmsDbfs, samplePeakDbfs } = reportOf([out.subarray(to * 0.1, to * 0.9)], {}, to).channels[0]!.levels;
    expect(rmsDbfs).toBeCloseTo(-9.01, 1);
    expect(samplePeakDbfs).toBeCloseTo(-6, 1);
  });

  it('lets nothing fold back', () => {
    const out = resample(sine(20_000, 0, 1), 48_000, 16_000);
    const middle = out.subarray(1600, 14_400);
    expect(Math.sqrt(middle.reduce((sum, value) => sum + value * value, 0) / middle.length)).toBeLessThan(10 ** (-70 / 20));
  });
});
