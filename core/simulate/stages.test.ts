import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Cascade, highPass } from '../audio/biquad.ts';
import { concat, silence, sine, whiteNoise } from '../testing/signals.ts';
import { onsetsOf } from './dryVoice.ts';
import { fieldDb, throughFading } from './radioFading.ts';
import { randomSource } from './random.ts';
import { automaticLevel, converted, limited, safetyTrack, spectrallyGated } from './recorderStages.ts';

const RATE_HZ = 48_000;
const rms = (samples: Float64Array) => Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);
const db = (ratio: number) => 20 * Math.log10(ratio);

describe('radio', () => {
  it('fades about its mean as a field that comes by many ways does', () => {
    const field = fieldDb(60, 5, randomSource(3));
    const power = field.reduce((sum, level) => sum + 10 ** (level / 10), 0) / field.length;
    expect(Math.abs(10 * Math.log10(power))).toBeLessThan(0.2);
    // The median of an exponentially spread power lies 1.6 dB under its mean.
    expect(Math.abs(Float64Array.from(field).sort()[field.length >> 1]! + 1.6)).toBeLessThan(0.8);
  });

  it('a digital link is silent within its breaks and untouched elsewhere; a body in the way makes more of them', () => {
    const tone = sine(1000, -12, 8);
    const link = { marginDb: 12, bodyLossDb: 0, fadesPerS: 5, kind: 'digital' as const };
    const { samples, dropouts } = throughFading(tone, RATE_HZ, link, randomSource(8));
    expect(dropouts.length).toBeGreaterThan(1);
    const { startS, endS } = dropouts[0]!;
    const middle = Math.round(((startS + endS) / 2) * RATE_HZ);
    expect(Math.abs(samples[middle]!)).toBeLessThan(1e-3);
    expect(samples[Math.round((startS - 0.005) * RATE_HZ)]).toBe(tone[Math.round((startS - 0.005) * RATE_HZ)]);
    const lost = (bodyLossDb: number) => throughFading(tone, RATE_HZ, { ...link, bodyLossDb }, randomSource(8)).dropouts.reduce((sum, each) => sum + each.endS - each.startS, 0);
    expect(lost(8)).toBeGreaterThan(2 * lost(0));
  });

  it('an analogue link gets noisy instead, and gives a steady tone back near its level with margin to spare', () => {
    const tone = sine(1000, -18, 4);
    const { samples } = throughFading(tone, RATE_HZ, { marginDb: 60, bodyLossDb: 0, fadesPerS: 2, kind: 'analogue' }, randomSource(2));
    expect(Math.abs(db(rms(samples.subarray(RATE_HZ)) / rms(tone)))).toBeLessThan(6);
  });
});

describe('recorder', () => {
  it('an automatic level brings quiet up at its rate and takes loud down at once', () => {
    const { gainDb } = automaticLevel(concat(sine(500, -10, 1), silence(2)), RATE_HZ, { targetDbfs: -20, recoveryDbPerS: 5, mostGainDb: 15 });
    expect(gainDb[RATE_HZ - 1]).toBeLessThan(-5);
    expect(gainDb[2.5 * RATE_HZ]! - gainDb[1.5 * RATE_HZ]!).toBeCloseTo(5, 1);
  });

  it('a limiter holds its ceiling and leaves what is under it alone', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), (seed) => {
        const loud = whiteNoise(-12, 0.2, seed);
        expect(limited(loud, RATE_HZ, -6).every((x) => Math.abs(x) <= 10 ** (-6 / 20) + 1e-9)).toBe(true);
      }),
      { numRuns: 5 },
    );
    const quiet = whiteNoise(-50, 0.2, 3);
    expect(limited(quiet, RATE_HZ, -6)).toEqual(quiet);
  });

  it('spectral gating lowers the noise and keeps a tone', () => {
    const noise = whiteNoise(-50, 2, 4);
    const gated = spectrallyGated(noise, noise, 18);
    expect(db(rms(gated.subarray(RATE_HZ / 2, RATE_HZ * 1.5)) / rms(noise))).toBeLessThan(-6);
    const tone = sine(1000, -20, 2).map((x, index) => x + (noise[index] as number));
    expect(Math.abs(db(rms(spectrallyGated(tone, noise, 18).subarray(RATE_HZ / 2, RATE_HZ * 1.5)) / rms(tone)))).toBeLessThan(0.5);
  });

  it('a converter holds at full scale and counts; float keeps what is over it; a safety track lies lower', () => {
    const hot = sine(440, 6, 0.1);
    const stored = converted(hot, 16, randomSource(1));
    expect(stored.clippedSamples).toBeGreaterThan(100);
    expect(stored.samples.every((x) => x >= -1 && x < 1)).toBe(true);
    expect(converted(hot, 'float', randomSource(1))).toMatchObject({ clippedSamples: 0 });
    expect(db(rms(safetyTrack(hot, 12)) / rms(hot))).toBeCloseTo(-12, 9);
    const quiet = sine(440, -6, 0.2);
    const error = converted(quiet, 16, randomSource(2)).samples.map((x, index) => x - quiet[index]!);
    expect(rms(error)).toBeLessThan(2 / 32_768);
  });
});

describe('onsets of a dry voice', () => {
  const vowel = (lengthS: number) => sine(240, -12, lengthS);

  it('are where a vowel comes out of a gap', () => {
    const voice = concat(silence(0.3), vowel(0.4), silence(0.3), vowel(0.4), silence(0.3));
    expect(onsetsOf(voice, RATE_HZ).map((at) => Math.round(at * 10) / 10)).toEqual([0.3, 1]);
  });

  it('are not where hiss begins, nor where a vowel goes on', () => {
    const hiss = whiteNoise(-20, 0.3, 1);
    new Cascade([highPass(4000, Math.SQRT1_2, RATE_HZ), highPass(4000, Math.SQRT1_2, RATE_HZ)]).process(hiss, hiss, hiss.length);
    expect(onsetsOf(concat(silence(0.3), hiss, silence(0.3)), RATE_HZ)).toEqual([]);
    expect(onsetsOf(concat(silence(0.3), vowel(0.8), sine(260, -10, 0.5)), RATE_HZ)).toHaveLength(1);
  });

  it('with a lower rise take in what comes near to one', () => {
    const rising = concat(sine(240, -34, 0.3), sine(240, -22, 0.3));
    expect(onsetsOf(rising, RATE_HZ)).toEqual([]);
    expect(onsetsOf(rising, RATE_HZ, 8)).toHaveLength(1);
  });
});
