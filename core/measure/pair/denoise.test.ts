import { describe, expect, it } from 'vitest';
import { THIRD_OCTAVE_HZ } from '../../audio/bands.ts';
import { Cascade, highShelf } from '../../audio/biquad.ts';
import { spectrallyGated } from '../../simulate/recorderStages.ts';
import { mixed, whiteNoise } from '../../testing/signals.ts';
import { voiced } from '../../testing/voiced.ts';
import { denoiseText } from './denoiseWords.ts';
import { measurePair } from './pair.ts';
import { sampleTrack } from './track.ts';

const RATE_HZ = 48_000;
const LENGTH_S = 8;
const raw = mixed(voiced(LENGTH_S, -90), whiteNoise(-48, LENGTH_S, 5));
const compared = (own: Float64Array, other = raw) => measurePair(sampleTrack(own, RATE_HZ), sampleTrack(other, RATE_HZ), () => undefined);
/** Every part of the sound that is voice is loud, the rest is noise alone: a gate without flaw. */
const gated = (depthDb: number) => raw.map((x, index) => ((index / RATE_HZ) % 2 > 1.3 ? x * 10 ** (-depthDb / 20) : x));

describe('what noise reduction takes', () => {
  it.each([6, 20])('a gate that takes %i dB off the pauses takes as much noise, no voice, and leaves no warble', (depthDb) => {
    const { denoise } = compared(gated(depthDb));
    expect(Math.abs((denoise?.noiseReductionDb ?? 0) - depthDb)).toBeLessThan(1);
    for (const loss of denoise?.voiceLossDb ?? []) expect(Math.abs(loss ?? 0)).toBeLessThan(0.5);
    expect(Math.abs(denoise?.musicalNoise ?? 9)).toBeLessThan(0.3);
  });

  it('gain and delay do not count', () => {
    const later = new Float64Array(raw.length);
    later.set(
      gated(12)
        .map((x) => 0.4 * x)
        .subarray(0, raw.length - 960),
      960,
    );
    expect(Math.abs((compared(later).denoise?.noiseReductionDb ?? 0) - 12)).toBeLessThan(1);
  });

  it('reduction by subtraction warbles: the powers that are left have a higher kurtosis', () => {
    const { denoise } = compared(spectrallyGated(raw, whiteNoise(-48, 2, 9), 20));
    expect(denoise?.noiseReductionDb ?? 0).toBeGreaterThan(6);
    expect(denoise?.musicalNoise ?? 0).toBeGreaterThan(0.5);
  });

  it('a top that is taken away with the noise is told in its bands', () => {
    const duller = gated(12);
    new Cascade([highShelf(3000, -4, RATE_HZ)]).process(duller, duller, duller.length);
    const { denoise } = compared(duller);
    const band = (hz: number) => denoise?.voiceLossDb[THIRD_OCTAVE_HZ.findIndex((each) => Math.abs(each / hz - 1) < 0.05)] ?? Number.NaN;
    expect(band(2500) - band(500)).toBeGreaterThan(1);
    expect(Math.abs(band(500))).toBeLessThan(0.5);
  });

  it('nothing is said where both have the same noise, or are two microphones', () => {
    expect(compared(raw.map((x) => 0.5 * x)).denoise).toBeNull();
    const other = mixed(voiced(LENGTH_S, -90), whiteNoise(-60, LENGTH_S, 77));
    let low = 0;
    const elsewhere = other.map((x) => {
      low += 0.1 * (x - low);
      return x - 2 * low;
    });
    expect(compared(elsewhere).denoise).toBeNull();
  });
});

describe('moments to hear', () => {
  const WORDS_S = [0.5, 1.7, 2.9, 4.1, 5.3, 6.5];
  /** Words that die away over half a second, over a bed of noise. */
  const dying = mixed(
    whiteNoise(-62, LENGTH_S, 3),
    whiteNoise(-20, LENGTH_S, 4).map((x, index) => {
      const sinceS = Math.min(...WORDS_S.map((atS) => index / RATE_HZ - atS).filter((s) => s >= 0));
      return sinceS < 1 ? x * 10 ** (-3.2 * sinceS) : 0;
    }),
  );
  const between = (index: number, fromS: number, toS: number) => index / RATE_HZ >= fromS && index / RATE_HZ < toS;
  /** Noise 12 dB lower between words, and more of one faint end. */
  const processed = dying.map((x, index) => {
    if (between(index, 2.9 + 0.3, 2.9 + 0.5)) return 0.1 * x;
    return WORDS_S.some((atS) => between(index, atS + 0.75, atS + 1.2)) ? 0.25 * x : x;
  });

  it('are where a faint end of a word was swallowed, and nowhere else', () => {
    const moments = (compared(processed, dying).denoise?.moments ?? []).filter(({ kind }) => kind === 'swallowed');
    expect(moments.length).toBeGreaterThan(0);
    for (const { startS, endS, amount } of moments) {
      expect(startS).toBeGreaterThan(2.9 + 0.25);
      expect(endS).toBeLessThan(2.9 + 0.55);
      expect(amount).toBeGreaterThan(10);
    }
  });

  it('are none where the ends are whole and the noise that is left is even', () => {
    const even = dying.map((x, index) => (WORDS_S.some((atS) => between(index, atS + 0.75, atS + 1.2)) ? 0.25 * x : x));
    const { denoise } = compared(even, dying);
    expect(denoise?.noiseReductionDb).toBeCloseTo(12, 0);
    expect(denoise?.moments).toEqual([]);
  });

  it('are where noise warbles', () => {
    const moments = compared(spectrallyGated(raw, whiteNoise(-48, 2, 9), 20)).denoise?.moments ?? [];
    expect(moments.some(({ kind }) => kind === 'warble')).toBe(true);
    for (const { startS } of moments.filter(({ kind }) => kind === 'warble')) expect(startS % 2).toBeGreaterThan(1.2);
  });
});

describe('what noise reduction did, in words', () => {
  it('tells the price, and that there was none', () => {
    const voiceLossDb = Array.from({ length: 31 }, () => 0);
    expect(denoiseText({ noiseReductionDb: 12.2, voiceLossDb, wordEdgeLossDb: 0.4, musicalNoise: 0.1 })).toBe(
      'Noise is 12 dB lower against the voice, and nothing of the voice went with it.',
    );
    voiceLossDb[20] = 4;
    expect(denoiseText({ noiseReductionDb: 12.2, voiceLossDb, wordEdgeLossDb: 3, musicalNoise: 0.7 })).toBe(
      'Noise is 12 dB lower against the voice; the voice lost 4 dB at 2000 Hz, 3 dB of the faint ends of words went with it, and what is left warbles.',
    );
    expect(denoiseText({ noiseReductionDb: -6, voiceLossDb: [], wordEdgeLossDb: null, musicalNoise: 0 })).toContain('6 dB higher');
  });
});
