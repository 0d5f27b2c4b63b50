import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filled } from '../audio/filled.ts';
import { randomSource } from '../simulate/random.ts';
import { DecayFinder } from './decay.ts';

const STEP_S = 0.01;

/** Levels of 10 ms: words of half a second that fall by 60 dB in `timeS` once they are over, with noise and its wavering. */
function fallingWords(timeS: number, { gapS = 0.6, times = 6, noiseDb = -75, directDb = 0, waverDb = 0.8, seed = 1 } = {}): Float64Array {
  const random = randomSource(seed);
  const levels: number[] = [];
  for (let word = 0; word < times; word++) {
    for (let at = 0; at < 0.5; at += STEP_S) levels.push(-25 + directDb);
    for (let at = 0; at < gapS; at += STEP_S) levels.push(-25 - (60 * at) / timeS);
  }
  for (let at = 0; at < 0.3; at += STEP_S) levels.push(-25);
  return Float64Array.from(levels, (level) => (10 ** (level / 10) + 10 ** (noiseDb / 10)) * 10 ** ((waverDb * random.normal()) / 10));
}

const decayOf = (powers: Float64Array) => {
  const finder = new DecayFinder();
  finder.settle(powers);
  return finder.reverberationS();
};

describe('how long a room rings', () => {
  it.each([0.3, 0.5, 0.8, 1.2, 1.8, 2.5])('an exponential decay of %f s is read within 15 %', (timeS) => {
    const read = decayOf(fallingWords(timeS, { gapS: 0.9 }));
    expect(Math.abs((read ?? 0) / timeS - 1)).toBeLessThan(0.15);
  });

  it.each([1, 1.5, 2])('is the room behind a near microphone, whose words drop by 8 dB onto it (%f s)', (timeS) => {
    const read = decayOf(fallingWords(timeS, { gapS: 0.9, directDb: 8 }));
    expect(Math.abs((read ?? 0) / timeS - 1)).toBeLessThan(0.2);
  });

  it('tells how much of the sound came straight: words that drop by 8 dB have 5.3 times the power of their room', () => {
    const finder = new DecayFinder();
    finder.settle(fallingWords(1.5, { gapS: 0.9, directDb: 8, waverDb: 0.3 }));
    expect(10 * Math.log10((finder.directToRoom() ?? 0) + 1)).toBeGreaterThan(6);
    expect(10 * Math.log10((finder.directToRoom() ?? 0) + 1)).toBeLessThan(11);
  });

  it('one long fall is enough', () => {
    expect(Math.abs((decayOf(fallingWords(1.5, { times: 1, gapS: 1.3 })) ?? 0) / 1.5 - 1)).toBeLessThan(0.15);
  });

  it('a voice that dies away slowly after some words does not hide the room that most of them show', () => {
    const slow = fallingWords(3, { times: 2, gapS: 0.9 });
    const room = fallingWords(0.6, { times: 7 });
    expect(Math.abs((decayOf(Float64Array.from([...slow, ...room])) ?? 0) / 0.6 - 1)).toBeLessThan(0.2);
  });

  it('there is none in silence, in steady noise or on a steady tone', () => {
    const random = randomSource(5);
    for (const powers of [new Float64Array(900), filled(900, () => 1e-6 * 10 ** (0.08 * random.normal())), new Float64Array(900).fill(1e-3)]) {
      expect(decayOf(powers)).toBeNull();
    }
  });

  it('does not depend on the gain', () => {
    fc.assert(
      fc.property(fc.double({ min: -40, max: 10, noNaN: true }), (gainDb) => {
        const powers = fallingWords(0.9);
        expect(decayOf(powers.map((power) => power * 10 ** (gainDb / 10)))).toBeCloseTo(decayOf(powers) ?? 0, 6);
      }),
      { numRuns: 20 },
    );
  });
});
