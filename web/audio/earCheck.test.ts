import { voiceLoudnessLufs } from '@marvet/core/listen/voiceLoudness';
import { randomSource } from '@marvet/core/simulate/random';
import { describe, expect, it } from 'vitest';
import { type Ear, earCheck } from './earCheck.ts';

const lufs = (samples: Float32Array) => voiceLoudnessLufs(Float64Array.from(samples), 48_000, []);

describe('the check of ears', () => {
  it.each<[Ear, number, boolean, boolean]>([
    ['left', -23, true, false],
    ['right', -23, false, true],
    ['both', -16, true, true],
  ])('%s at %i LUFS sounds there, and nowhere else, as loud as the clips', (ear, levelLufs, isLeft, isRight) => {
    const channels = earCheck(ear, levelLufs, 48_000, randomSource(7).uniform);
    expect(channels.map((samples) => lufs(samples) !== null)).toEqual([isLeft, isRight]);
    for (const samples of channels.filter((each) => lufs(each) !== null)) {
      expect(lufs(samples)!).toBeCloseTo(levelLufs, 1);
      expect(Math.max(...samples.map(Math.abs))).toBeLessThan(1);
      expect(Math.abs(samples[0]!) + Math.abs(samples.at(-1)!)).toBe(0);
    }
  });

  it('falls by 3 dB an octave', () => {
    // Over many bursts, since one has few moments of its lowest octave.
    const powerAround = (hz: number) => {
      let sum = 0;
      for (let seed = 1; seed <= 60; seed++) {
        const [samples] = earCheck('left', -23, 48_000, randomSource(seed).uniform);
        for (const each of [0.8, 0.9, 1, 1.1, 1.25]) {
          let [cosine, sine] = [0, 0];
          for (let at = 0; at < samples.length; at += 1) {
            cosine += samples[at]! * Math.cos((2 * Math.PI * hz * each * at) / 48_000);
            sine += samples[at]! * Math.sin((2 * Math.PI * hz * each * at) / 48_000);
          }
          sum += cosine * cosine + sine * sine;
        }
      }
      return 10 * Math.log10(sum);
    };
    expect(Math.abs(powerAround(1000) - powerAround(4000) - 6)).toBeLessThan(1.5);
  });
});
