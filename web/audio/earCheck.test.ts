import { randomSource } from '@marvet/core/simulate/random';
import { describe, expect, it } from 'vitest';
import { type Ear, earCheck } from './earCheck.ts';

const seeded = (seed: number) => randomSource(seed).uniform;
const rmsDb = (samples: Float32Array) => 10 * Math.log10(samples.reduce((sum, value) => sum + value * value, 0) / samples.length);

describe('the check of ears', () => {
  it.each<[Ear, boolean, boolean]>([
    ['left', true, false],
    ['right', false, true],
    ['both', true, true],
  ])('%s sounds there, and nowhere else, as loud as the clips', (ear, isLeft, isRight) => {
    const channels = earCheck(ear, 48_000, seeded(7));
    expect(channels.map((samples) => rmsDb(samples) > -60)).toEqual([isLeft, isRight]);
    for (const samples of channels.filter((each) => rmsDb(each) > -60)) {
      expect(Math.abs(rmsDb(samples) + 23.5)).toBeLessThan(0.7);
      expect(Math.max(...samples.map(Math.abs))).toBeLessThan(0.7);
      expect(Math.abs(samples[0]!) + Math.abs(samples.at(-1)!)).toBe(0);
    }
  });
});
