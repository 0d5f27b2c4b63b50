import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../simulate/random.ts';
import { agreement, concordance, ranksOf, standingApart } from './agreement.ts';

const seeded = (seed: number) => randomSource(seed).uniform;

describe('agreement of listeners', () => {
  it('is that of the published examples: three who judge six, and three who judge ten with ties', () => {
    // S. Siegel, Nonparametric Statistics for the Behavioral Sciences, 1956, chapter 9.
    const six = [
      [1, 6, 3, 2, 5, 4],
      [1, 5, 6, 4, 2, 3],
      [6, 3, 2, 5, 4, 1],
    ];
    expect(concordance(six)).toBeCloseTo(0.16, 2);
    const ten = [
      [1, 4.5, 2, 4.5, 3, 7.5, 6, 9, 7.5, 10],
      [2.5, 1, 2.5, 4.5, 4.5, 8, 9, 6.5, 10, 6.5],
      [2, 1, 4.5, 4.5, 4.5, 4.5, 8, 8, 8, 10],
    ];
    expect(concordance(ten)).toBeCloseTo(0.828, 3);
    // By chi-square that is beyond one in a hundred; by dealing out as well.
    expect(agreement(ten, seeded(3))!.byChance).toBeLessThan(0.01);
    expect(agreement(six, seeded(3))!.byChance).toBeGreaterThan(0.5);
  });

  it('of two is one more than Spearman by half; of all alike it is 1; of none told apart there is none', () => {
    const points = fc.array(fc.integer({ min: 0, max: 10 }), { minLength: 5, maxLength: 5 });
    fc.assert(
      fc.property(points, points, (a, b) => {
        fc.pre(new Set(a).size === 5 && new Set(b).size === 5);
        const found = agreement([a, b], seeded(5))!;
        expect(found.w).toBeCloseTo((found.pairs[0]![1]! + 1) / 2, 9);
      }),
      { numRuns: 20 },
    );
    expect(
      agreement(
        [
          [1, 5, 9, 9],
          [0, 2, 4, 4],
          [3, 5, 8, 8],
        ],
        seeded(1),
      ),
    ).toMatchObject({ w: 1 });
    expect(
      agreement(
        [
          [5, 5, 5],
          [7, 7, 7],
        ],
        seeded(1),
      ),
    ).toBeNull();
    expect(agreement([[5, 6, 7]], seeded(1))).toBeNull();
    expect(
      agreement(
        [
          [5, 6],
          [5, 6],
        ],
        seeded(1),
      ),
    ).toBeNull();
  });

  it('of listeners who throw dice is called more than chance in one of twenty tests', () => {
    const uniform = seeded(77);
    let found = 0;
    const tests = 120;
    for (let test = 0; test < tests; test++) {
      const points = Array.from({ length: 4 }, () => Array.from({ length: 5 }, () => Math.floor(uniform() * 11)));
      const judged = agreement(points, uniform);
      if (judged && judged.byChance <= 0.05) found++;
    }
    expect(found / tests).toBeLessThan(0.12);
  });

  it('who heard it otherwise stands apart, where the others agree', () => {
    const alike = [1, 3, 5, 7, 9];
    const found = agreement([alike, [2, 3, 6, 6, 8], [0, 4, 5, 8, 9], [9, 6, 5, 4, 2]], seeded(9))!;
    expect(standingApart(found)).toEqual([3]);
    expect(standingApart(agreement([alike, [9, 7, 5, 3, 1]], seeded(9))!)).toEqual([]);
    expect(standingApart(agreement([alike, [5, 9, 1, 7, 3], [9, 1, 7, 3, 5]], seeded(9))!)).toEqual([]);
  });

  it('ranks equal points with the mean of their ranks', () => expect(ranksOf([5, 9, 9, 1])).toEqual([2, 3.5, 3.5, 1]));
});
