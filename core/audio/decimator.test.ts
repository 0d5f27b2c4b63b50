import { describe, expect, it } from 'vitest';
import { Decimator } from './decimator.ts';
import { filled } from './filled.ts';

const RATE_HZ = 48_000;
const tone = (hz: number) => filled(RATE_HZ, (index) => Math.SQRT2 * Math.cos((2 * Math.PI * hz * index) / RATE_HZ));
const decimated = (signal: Float64Array, halvings: number, block = signal.length): Float64Array => {
  const decimator = new Decimator(halvings);
  const out: number[] = [];
  const kept = new Float64Array(block);
  for (let at = 0; at < signal.length; at += block) {
    const part = signal.subarray(at, at + block);
    const count = decimator.process(part, part.length, kept);
    out.push(...kept.subarray(0, count));
  }
  return Float64Array.from(out);
};
const levelDb = (signal: Float64Array) => 10 * Math.log10(signal.reduce((sum, x) => sum + x * x, 0) / signal.length);

describe('decimation by halving', () => {
  it.each([40, 200, 500])('%i Hz comes through at the gain that is stated', (hz) => {
    expect(levelDb(decimated(tone(hz), 3, 4096).subarray(100))).toBeCloseTo(new Decimator(3).gainDb(hz, RATE_HZ), 1);
  });

  it.each([5500, 6400, 11_500, 12_500, 17_600, 23_600])('%i Hz, which folds into the lowest tenth, is 85 dB down', (hz) => {
    expect(levelDb(decimated(tone(hz), 3, 4096).subarray(100))).toBeLessThan(-85);
  });

  it('gives the same in blocks of any length', () => {
    const signal = tone(313);
    const whole = decimated(signal.subarray(0, 8000), 3, 8000);
    for (const block of [1, 7, 64, 999]) expect([...decimated(signal.subarray(0, 8000), 3, block)], `${block}`).toEqual([...whole]);
  });

  it('passes all through where nothing is to be halved', () => {
    expect([...decimated(tone(100).subarray(0, 50), 0)]).toEqual([...tone(100).subarray(0, 50)]);
  });
});
