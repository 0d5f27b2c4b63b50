import { describe, expect, it } from 'vitest';
import { sine, whiteNoise } from '../../testing/signals.ts';
import { VOICING_HOP_S, Voicing } from './voicing.ts';

const RATE_HZ = 6000;
const voicingOf = (samples: Float64Array) => {
  const voicing = new Voicing(RATE_HZ);
  for (let start = 0; start < samples.length; start += 512) voicing.push(samples.subarray(start, start + 512), Math.min(512, samples.length - start));
  return Array.from(voicing.view()).slice(4);
};
const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

describe('how much a sound repeats itself at the pitch of a voice', () => {
  it.each([90, 150, 300])('nearly all of a tone of %i Hz does', (hz) => {
    expect(mean(voicingOf(sine(hz, -12, 2, RATE_HZ)))).toBeGreaterThan(0.97);
  });

  it('little of noise does, and none of silence', () => {
    expect(mean(voicingOf(whiteNoise(-20, 3, 3, RATE_HZ)))).toBeLessThan(0.5);
    expect(mean(voicingOf(new Float64Array(RATE_HZ)))).toBe(0);
  });

  it('has a value every 16 ms', () => {
    expect(Math.abs(voicingOf(whiteNoise(-20, 2, 3, RATE_HZ)).length + 4 - 2 / VOICING_HOP_S)).toBeLessThan(4);
  });

  it('does not depend on the level', () => {
    const noise = whiteNoise(-20, 1, 7, RATE_HZ);
    voicingOf(noise.map((x) => x * 0.001)).forEach((value, hop) => expect(value).toBeCloseTo(voicingOf(noise)[hop] as number, 5));
  });
});
