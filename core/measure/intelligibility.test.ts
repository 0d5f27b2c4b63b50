import { describe, expect, it } from 'vitest';
import { Cascade, highShelf, lowPass } from '../audio/biquad.ts';
import { concat, mixed, reportOf, silence, whiteNoise } from '../testing/signals.ts';
import { NORMAL_SPEECH_DB, speechIntelligibilityIndex } from './intelligibility.ts';

const shifted = (by: number) => NORMAL_SPEECH_DB.map((level) => level + by);

describe('speech intelligibility index, ANSI S3.5-1997, third-octave method', () => {
  it('importance adds up: speech far over all noise reads 1, less what its own masking takes', () => {
    const index = speechIntelligibilityIndex(NORMAL_SPEECH_DB, shifted(-60));
    expect(index).toBeGreaterThan(0.98);
    expect(index).toBeLessThanOrEqual(1);
  });

  it('speech 15 dB and more under the noise reads 0', () => {
    expect(speechIntelligibilityIndex(NORMAL_SPEECH_DB, shifted(16))).toBe(0);
  });

  it('speech-shaped noise at 0 dB reads 0.50 within 0.04', () => {
    expect(Math.abs(speechIntelligibilityIndex(NORMAL_SPEECH_DB, shifted(0)) - 0.5)).toBeLessThanOrEqual(0.04);
  });

  it('falls by a thirtieth for each decibel of noise', () => {
    const [low, high] = [-3, 3].map((by) => speechIntelligibilityIndex(NORMAL_SPEECH_DB, shifted(by))) as [number, number];
    expect(low - high).toBeCloseTo(6 / 30, 1);
  });
});

/** Noise coloured as speech is, more or less. */
function speechShaped(levelDbfs: number, lengthS: number, seed: number): Float64Array {
  const noise = whiteNoise(levelDbfs, lengthS, seed);
  new Cascade([lowPass(450, 0.5, 48_000), highShelf(2500, 12, 48_000)]).process(noise, noise, noise.length);
  return noise;
}

/** Words of shaped noise over a steady noise of the same shape. */
const take = (snrDb: number) => {
  const words = concat(...[1, 2, 3, 4, 5].flatMap((seed) => [silence(0.9), speechShaped(-26, 1.1, seed)]), silence(0.9));
  return mixed(words, speechShaped(-26 - snrDb, words.length / 48_000, 99));
};

describe('of a take', () => {
  it.each([
    [0, 0.5, 0.04],
    [9, 0.8, 0.06],
    [30, 1, 0.04],
  ])('words %i dB over noise of their own shape read %f', (snrDb, wanted, within) => {
    const { sii } = reportOf([take(snrDb)]).channels[0]!.intelligibility;
    expect(Math.abs((sii ?? 0) - wanted)).toBeLessThanOrEqual(within);
  });

  it('where no fall shows how long the room rings there is no transmission index, and it is said', () => {
    const { channels, warnings } = reportOf([take(30)]);
    expect(channels[0]!.intelligibility.sti).toBeNull();
    expect(warnings.join()).toContain('there is no transmission index');
  });

  it('without words there is none', () => {
    expect(reportOf([whiteNoise(-50, 3)]).channels[0]!.intelligibility.sii).toBeNull();
  });
});
