import { rmsOf, slopedNoise } from '@marvet/core/simulate/noiseBed';
import { randomSource } from '@marvet/core/simulate/random';
import { sine } from '@marvet/core/testing/signals';
import { describe, expect, it } from 'vitest';
import { isCoveredBy } from './isCoveredBy.ts';
import { noiseOf, quietestOf } from './ownNoise.ts';
import { playedOn } from './playedOn.ts';

const RATE_HZ = 48_000;
const db = (amplitude: number) => 20 * Math.log10(amplitude);

/** A word of a second in a noise that goes on for a second more. */
function clip(noiseDbfs: number, seed: number, slopeDb = 0): Float64Array {
  const random = randomSource(seed);
  const noise = slopedNoise(2 * RATE_HZ, RATE_HZ, slopeDb, random);
  const scale = 10 ** (noiseDbfs / 20) / rmsOf(noise);
  const word = sine(200, -20, 1);
  return noise.map((x, index) => scale * x + (word[index] ?? 0));
}

describe('the noise that talkers were recorded in', () => {
  it.each([0, -3])('goes on at the level and with the spectrum that it has in the clips, which fall by %i dB an octave', (slopeDb) => {
    const clips = Array.from({ length: 8 }, (_, seed) => clip(-50, seed, slopeDb));
    const { noise } = quietestOf(clips);
    const rendered = noiseOf(noise, 4 * RATE_HZ, randomSource(99));
    // The quietest twentieth of frames lies a little under their mean.
    expect(Math.abs(db(rmsOf(rendered)) - -50)).toBeLessThan(2);
    const again = quietestOf([rendered, rendered]).noise;
    const share = (bins: Float64Array, from: number, to: number) => bins.subarray(from, to).reduce((sum, bin) => sum + bin, 0);
    for (const [from, to] of [
      [4, 40],
      [40, 400],
    ] as const)
      expect(Math.abs(10 * Math.log10(share(again, from, to) / share(noise, from, to)))).toBeLessThan(2);
  });

  it('is even: no tenth of a second of it is far from another', () => {
    const { noise } = quietestOf([clip(-50, 1), clip(-50, 2)]);
    const rendered = noiseOf(noise, 2 * RATE_HZ, randomSource(5));
    const levels = Array.from({ length: 20 }, (_, part) => db(rmsOf(rendered.subarray((part * RATE_HZ) / 10, ((part + 1) * RATE_HZ) / 10))));
    expect(Math.max(...levels) - Math.min(...levels)).toBeLessThan(1);
  });

  it('is that of the quieter half of the clips, which are the ones that are heard', () => {
    const [quiet, loud] = [clip(-60, 1), clip(-35, 2)];
    const { words, noise } = quietestOf([loud, quiet]);
    expect(words).toEqual([quiet]);
    expect(db(rmsOf(noiseOf(noise, RATE_HZ, randomSource(3))))).toBeLessThan(-57);
  });

  it('of clips in digital silence is none', () => {
    const silent = new Float64Array(2 * RATE_HZ);
    silent.set(sine(200, -20, 1).subarray(0, RATE_HZ));
    expect(quietestOf([new Float64Array(RATE_HZ), new Float64Array(RATE_HZ)]).noise.every((bin) => bin === 0)).toBe(true);
    expect(quietestOf([silent, silent]).words).toHaveLength(1);
  });
});

describe('what is laid over words', () => {
  const voice = sine(200, -20, 2);
  voice.fill(0, RATE_HZ);
  const thing = sine(900, -30, 0.5);

  it('is covered where a louder voice lies over all of it, and by noise over it', () => {
    expect(isCoveredBy(voice, 0.2 * RATE_HZ, thing, 1, -70)).toBe(true);
    expect(isCoveredBy(voice, 1.2 * RATE_HZ, thing, 1, -30)).toBe(true);
  });

  it('is not where it stands out of them for 60 ms', () => {
    expect(isCoveredBy(voice, 1.2 * RATE_HZ, thing, 1, -70)).toBe(false);
    expect(isCoveredBy(voice, 0.6 * RATE_HZ, thing, 1, -70)).toBe(false);
    expect(isCoveredBy(voice, 0.55 * RATE_HZ, thing, 1, -70)).toBe(true);
    expect(isCoveredBy(voice, 0.2 * RATE_HZ, thing, 10, -70)).toBe(false);
  });

  it('is music without a gap, however short the piece', () => {
    const piece = slopedNoise(RATE_HZ, RATE_HZ, 0, randomSource(1));
    const played = playedOn(piece, 5 * RATE_HZ);
    expect(played).toHaveLength(5 * RATE_HZ);
    const levels = Array.from({ length: 250 }, (_, part) => db(rmsOf(played.subarray((part * RATE_HZ) / 50, ((part + 1) * RATE_HZ) / 50))));
    expect(Math.max(...levels) - Math.min(...levels)).toBeLessThan(3);
  });
});
