import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../../simulate/random.ts';
import { fewestRight, GUESSED, holm, leastHeard, POWER, power, preferred, told } from './doubt.ts';
import { betterComparisons, oddComparisons, pairsOf, sameComparisons } from './sequence.ts';
import { strengths } from './strength.ts';

const seeded = (seed: number) => randomSource(seed).uniform;

describe('right answers that are needed', () => {
  it.each([
    // The published table of triangle tests (ISO 4120, table A.1, 5 %).
    ['odd', 6, 5],
    ['odd', 8, 6],
    ['odd', 10, 7],
    ['odd', 12, 8],
    ['odd', 16, 9],
    ['odd', 20, 11],
    ['odd', 30, 15],
    // The published table of paired tests with one side (ISO 5495, table A.1, 5 %).
    ['same', 7, 7],
    ['same', 10, 9],
    ['same', 12, 10],
    ['same', 16, 12],
    ['same', 20, 15],
    ['same', 24, 17],
  ] as const)('%s, of %i: %i', (kind, tries, needed) => expect(fewestRight(tries, GUESSED[kind])).toBe(needed));

  it('are more than there are in a test that is too short', () => {
    expect(fewestRight(4, 0.5)).toBeNull();
    expect(fewestRight(5, 0.5)).toBe(5);
    expect(told(4, 4, 0.5)).toMatchObject({ apart: false, needed: null, leastHeard: null });
  });

  it.each([
    // The published table of paired tests with both sides (ISO 5495, table A.2, 5 %).
    [10, 9],
    [12, 10],
    [16, 13],
    [20, 15],
  ])('with both sides, of %i: %i', (tries, needed) => {
    expect(preferred(needed, tries - needed)).toMatchObject({ needed, clear: true });
    expect(preferred(needed - 1, tries - needed + 1).clear).toBe(false);
    expect(preferred(tries - needed, needed).clear).toBe(true);
  });
});

describe('what a test could have found', () => {
  it('is what many simulated tests find', () => {
    const uniform = seeded(11);
    for (const [tries, guessed, heard] of [
      [16, 1 / 2, 0.6],
      [18, 1 / 3, 0.4],
      [30, 1 / 2, 0.3],
    ] as const) {
      const needed = fewestRight(tries, guessed)!;
      let found = 0;
      for (let test = 0; test < 20_000; test++) {
        let right = 0;
        for (let row = 0; row < tries; row++) if (uniform() < heard || uniform() < guessed) right++;
        if (right >= needed) found++;
      }
      expect(power(tries, guessed, heard)).toBeCloseTo(found / 20_000, 1.8);
    }
  });

  it('is found four times of five at the least that is told, and a test without a difference finds one in twenty at most', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 100 }), fc.constantFrom(1 / 2, 1 / 3), (tries, guessed) => {
        const least = leastHeard(tries, guessed)!;
        expect(power(tries, guessed, least)).toBeCloseTo(POWER, 6);
        expect(power(tries, guessed, 0)).toBeLessThanOrEqual(0.05);
      }),
    );
  });

  it('the interval of what is heard holds the truth at least as often as it says', () => {
    const uniform = seeded(5);
    for (const heard of [0, 0.3, 0.7]) {
      let held = 0;
      for (let test = 0; test < 1000; test++) {
        let right = 0;
        for (let row = 0; row < 20; row++) if (uniform() < heard || uniform() < 0.5) right++;
        const [low, , high] = told(right, 20, 0.5).heard;
        if (low <= heard && heard <= high) held++;
      }
      expect(held / 1000).toBeGreaterThan(0.94);
    }
  });
});

describe('doubts of several listeners', () => {
  it('are those of the worked example, in their order', () => expect(holm([0.01, 0.04, 0.03, 0.005])).toEqual([0.03, 0.06, 0.06, 0.02]));

  it('never fall under their own, and six who guess are believed in one case of twenty', () => {
    const uniform = seeded(23);
    let believed = 0;
    for (let test = 0; test < 2000; test++) {
      const doubts = Array.from({ length: 6 }, () => {
        let right = 0;
        for (let row = 0; row < 16; row++) if (uniform() < 0.5) right++;
        return told(right, 16, 0.5).byGuessing;
      });
      const adjusted = holm(doubts);
      adjusted.forEach((each, at) => expect(each).toBeGreaterThanOrEqual(doubts[at]!));
      if (adjusted.some((each) => each <= 0.05)) believed++;
    }
    expect(believed / 2000).toBeLessThan(0.065);
  });
});

describe('strength from choices between two', () => {
  it('is that of the published example: the eastern league of 1987', () => {
    // A. Agresti, Categorical Data Analysis, 10.6: seven teams, wins of each row over each column.
    const wins = [
      [0, 7, 9, 7, 7, 9, 11],
      [6, 0, 7, 5, 11, 9, 9],
      [4, 6, 0, 7, 7, 8, 12],
      [6, 8, 6, 0, 6, 7, 10],
      [6, 2, 6, 7, 0, 7, 12],
      [4, 4, 5, 6, 6, 0, 6],
      [2, 4, 1, 3, 1, 7, 0],
    ];
    const found = strengths(wins)!;
    const last = found.at(-1)!;
    expect(found.map((each) => Number((each - last).toFixed(2)))).toEqual([1.58, 1.44, 1.29, 1.25, 1.11, 0.68, 0]);
  });

  it('of two it is the closed form, and it has no end where one always wins', () => {
    expect(
      strengths([
        [0, 3],
        [1, 0],
      ])![0],
    ).toBeCloseTo(Math.log(3) / 2, 9);
    expect(
      strengths([
        [0, 4],
        [0, 0],
      ]),
    ).toBeNull();
    expect(
      strengths([
        [0, 2, 2],
        [1, 0, 2],
        [0, 0, 0],
      ]),
    ).toBeNull();
  });

  it('turns round when every choice is turned round', () => {
    const count = fc.integer({ min: 1, max: 9 });
    fc.assert(
      fc.property(fc.array(fc.array(count, { minLength: 4, maxLength: 4 }), { minLength: 4, maxLength: 4 }), (wins) => {
        const found = strengths(wins)!;
        const turned = strengths(wins.map((row, a) => row.map((_, b) => wins[b]![a]!)))!;
        found.forEach((each, at) => expect(turned[at]).toBeCloseTo(-each, 5));
      }),
    );
  });
});

describe('comparisons', () => {
  it('A and B stay, and X is each as often as not, whatever came before', () => {
    const rows = sameComparisons(4000, seeded(3));
    expect(new Set(rows.map(([a, b]) => `${a}${b}`)).size).toBe(1);
    const isA = rows.map(([a, , x]) => x === a);
    expect(isA.filter(Boolean).length / 4000).toBeCloseTo(0.5, 1.5);
    const after = isA.filter((_, at) => at > 0 && isA[at - 1]);
    expect(after.filter(Boolean).length / after.length).toBeCloseTo(0.5, 1.5);
  });

  it('the odd one is one of two recordings at one of three places, all six as often', () => {
    const rows = oddComparisons(6000, seeded(9));
    const counts = new Map<string, number>();
    for (const row of rows) counts.set(row.join(''), (counts.get(row.join('')) ?? 0) + 1);
    expect([...counts.keys()].sort()).toEqual(['001', '010', '011', '100', '101', '110']);
    for (const count of counts.values()) expect(Math.abs(count - 1000)).toBeLessThan(120);
  });

  it('every two meet equally often, in each block once, and as often one way round as the other', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 1e6 }), (count, half, seed) => {
        const pairs = pairsOf(count);
        const rows = betterComparisons(count, 2 * half, seeded(seed));
        expect(rows).toHaveLength(pairs.length * 2 * half);
        for (const [a, b] of pairs) {
          const [one, other] = [rows.filter((row) => row[0] === a && row[1] === b), rows.filter((row) => row[0] === b && row[1] === a)];
          expect([one.length, other.length]).toEqual([half, half]);
        }
        for (let block = 0; block < 2 * half; block++) {
          const own = rows.slice(block * pairs.length, (block + 1) * pairs.length);
          expect(new Set(own.map((row) => [...row].sort().join())).size).toBe(pairs.length);
        }
      }),
    );
  });
});
