import { describe, expect, it } from 'vitest';
import { THIRD_OCTAVE_HZ, THIRD_OCTAVE_NAMES_HZ } from '../audio/bands.ts';
import { concat, mixed, reportOf, sine, whiteNoise } from '../testing/signals.ts';

const wholeOf = (signal: Float64Array) => reportOf([signal]).channels[0]!.spectrum;

describe('third-octave bands, IEC 61260-1 base ten', () => {
  it('exact centres lie within 1 % of the names', () => {
    THIRD_OCTAVE_HZ.forEach((hz, index) => {
      expect(Math.abs(hz / THIRD_OCTAVE_NAMES_HZ[index]! - 1)).toBeLessThan(0.012);
    });
  });

  it.each(THIRD_OCTAVE_HZ.map((hz, index) => [index, hz] as const))('band %i: a tone at %f Hz reads within 0.1 dB, two bands away 40 dB down', (index, hz) => {
    const { pauseDb } = wholeOf(sine(hz, -10, 6));
    expect(Math.abs((pauseDb[index] ?? -99) + 13.01)).toBeLessThanOrEqual(0.1);
    for (const away of [index - 2, index + 2]) {
      if (away >= 0 && away < 31) expect(pauseDb[away] ?? -150).toBeLessThanOrEqual(-13.01 - 40);
    }
  });

  it('white noise rises 1 dB a band and sums to its level', () => {
    const { pauseDb } = wholeOf(whiteNoise(-20, 20));
    const sum = pauseDb.reduce<number>((total, level) => total + 10 ** ((level ?? -200) / 10), 0);
    const share = (THIRD_OCTAVE_HZ[30]! * 10 ** 0.05 - THIRD_OCTAVE_HZ[0]! / 10 ** 0.05) / 24_000;
    expect(Math.abs(10 * Math.log10(sum) - (-20 + 10 * Math.log10(share)))).toBeLessThan(0.1);
    expect(Math.abs((pauseDb[27] ?? 0) - (pauseDb[17] ?? 0) - 10)).toBeLessThan(0.4);
  });

  it('tells the spectrum of words from that of pauses', () => {
    const tone = sine(1000, -20, 1);
    const gap = sine(200, -60, 1);
    const signal = mixed(concat(gap, tone, gap, tone, gap), whiteNoise(-85, 5, 4));
    const { speechDb, pauseDb } = reportOf([signal]).channels[0]!.spectrum;
    expect(Math.abs((speechDb[17] ?? -99) + 23.01)).toBeLessThan(1);
    expect(Math.abs((pauseDb[10] ?? -99) + 63.01)).toBeLessThan(1);
    expect(pauseDb[17] ?? 0).toBeLessThan(-80);
  });

  it('bands above half the sample rate are null, not quiet', () => {
    const { pauseDb } = reportOf([whiteNoise(-20, 3, 1, 16_000)], {}, 16_000).channels[0]!.spectrum;
    expect(pauseDb[30]).toBeNull();
    expect(pauseDb[20]).not.toBeNull();
  });

  it('groups are relative to the whole', () => {
    const { groups } = wholeOf(mixed(sine(100, -20, 5), sine(1000, -20, 5)));
    expect(Math.abs((groups.chestDb ?? 0) + 3.01)).toBeLessThan(0.1);
    expect(Math.abs((groups.midDb ?? 0) + 3.01)).toBeLessThan(0.1);
    expect(groups.airDb ?? 0).toBeLessThan(-60);
  });
});
