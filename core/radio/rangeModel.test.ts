import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../simulate/random.ts';
import { type RangeWindow, RELIABLE_CHANCE, rangeOf, rangeValueM, rangeWords } from './rangeModel.ts';

/** A walk past marks with so many windows at each, of a link whose truth is known. */
function walk(seed: number, truth: { reliableToM: number; slope: number }, marksM: readonly number[], each: number): RangeWindow[] {
  const random = randomSource(seed);
  const logit = Math.log(RELIABLE_CHANCE / (1 - RELIABLE_CHANCE));
  return marksM.flatMap((distanceM) => {
    const chance = 1 / (1 + Math.exp(-(logit + truth.slope * Math.log2(distanceM / truth.reliableToM))));
    return Array.from({ length: each }, () => ({ distanceM, brokeUp: random.uniform() < chance }));
  });
}
const MARKS = [5, 10, 15, 20, 30, 40, 60, 80];
const quiet = (distanceM: number, count: number) => Array.from({ length: count }, () => ({ distanceM, brokeUp: false }));
const broken = (distanceM: number, count: number) => Array.from({ length: count }, () => ({ distanceM, brokeUp: true }));

describe('how far a link holds', () => {
  it('of 500 simulated walks the interval holds the truth in 95 of 100, give or take what chance does to 500', () => {
    let held = 0;
    for (let seed = 0; seed < 500; seed++) {
      const truth = { reliableToM: 10 + 40 * ((seed * 0.618) % 1), slope: 1.5 + 3 * ((seed * 0.414) % 1) };
      const { lowM, highM } = rangeOf(walk(seed, truth, MARKS, 6))!;
      if ((lowM === null || lowM <= truth.reliableToM) && (highM === null || highM >= truth.reliableToM)) held++;
    }
    expect(held / 500).toBeGreaterThan(0.92);
    expect(held / 500).toBeLessThan(0.99);
  });

  it('"at least" of walks without a break-up is too far in no more than a tenth of them', () => {
    let [told, wrong] = [0, 0];
    for (let seed = 0; seed < 2000; seed++) {
      const truth = { reliableToM: 20 + 60 * ((seed * 0.618) % 1), slope: 2 };
      const { brokeUp, atLeastM } = rangeOf(walk(seed, truth, MARKS, 3))!;
      if (brokeUp > 0 || atLeastM === null) continue;
      told++;
      if (atLeastM > truth.reliableToM) wrong++;
    }
    // Wrong among all walks, since a bound is promised before it is known whether a break-up comes.
    expect(told).toBeGreaterThan(0);
    expect(wrong / 2000).toBeLessThan(0.1);
  });

  it('lies between the last mark that held and the first that broke up, where both are clear', () => {
    const { reliableToM, lowM, highM } = rangeOf([...quiet(10, 8), ...quiet(20, 8), ...broken(40, 8), ...broken(60, 8)])!;
    expect(reliableToM).toBeGreaterThan(19);
    expect(reliableToM).toBeLessThan(41);
    expect(lowM).toBeGreaterThan(8);
    expect(highM).toBeLessThan(45);
  });

  it('without a break-up is a bound within what was tried, and the longer it was tried the farther', () => {
    const short = rangeOf(quiet(60, 6))!;
    const long = rangeOf(quiet(60, 60))!;
    expect(short).toMatchObject({ reliableToM: null, highM: null, brokeUp: 0 });
    expect(long.atLeastM ?? 0).toBeGreaterThan(short.atLeastM ?? 0);
    expect(rangeWords(long)).toMatch(/^no break-up seen to 60 m: at least \d+ m with 90 %$/);
  });

  it('as one figure never says more than is known', () => {
    const clear = rangeOf([...quiet(10, 8), ...broken(40, 8)])!;
    expect(rangeValueM(clear)).toBe(clear.reliableToM);
    const long = rangeOf(quiet(60, 60))!;
    expect(rangeValueM(long)).toBe(Math.min(long.atLeastM!, 60));
    expect(rangeValueM(rangeOf(quiet(60, 1))!)).toBeLessThan(10);
    const everywhere = rangeOf(broken(10, 8))!;
    expect(rangeValueM(everywhere)).toBe(everywhere.highM);
    expect(rangeValueM(everywhere)!).toBeLessThan(10.5);
  });

  it('that broke up everywhere has no range, and what was not tried has none either', () => {
    expect(rangeOf(broken(10, 5))).toMatchObject({ reliableToM: null, lowM: null });
    expect(rangeWords(rangeOf(broken(10, 5)))).toBe('broke up wherever it was tried, from 10 m on');
    expect(rangeWords(rangeOf([]))).toBe('not tried');
  });

  it('has an interval around its figure, and in metres twice as far where all marks are twice as far', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000 }), (seed) => {
        const windows = walk(seed, { reliableToM: 25, slope: 2.5 }, MARKS, 4);
        const range = rangeOf(windows)!;
        if (range.reliableToM === null) return true;
        const twice = rangeOf(windows.map((window) => ({ ...window, distanceM: 2 * window.distanceM })))!;
        const around = (range.lowM ?? 0) <= range.reliableToM && range.reliableToM <= (range.highM ?? Number.POSITIVE_INFINITY);
        return around && Math.abs((twice.reliableToM as number) / range.reliableToM / 2 - 1) < 1e-6;
      }),
      { numRuns: 60 },
    );
  });
});
