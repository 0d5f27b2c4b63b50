import { describe, expect, it } from 'vitest';
import { expectationText, heardAsExpected, likelyAsMany } from './guessExpected.ts';

const letters = { A: 'r-osier', B: 'r-heron', C: 'r-plover', D: 'r-teal' };
const candidateOf = (id: string) => id.slice(2);
/** Somebody who gives points to A to D, and takes them for candidates. */
const listener = (name: string, points: number[], taken: string[]) => ({
  name,
  letters,
  guess: Object.fromEntries(taken.map((candidate, at) => ['ABCD'[at] as string, candidate])),
  ratings: points.map((each, at) => ({ letter: 'ABCD'[at] as string, points: each, criterionId: 'x', reason: '', listenerId: name })),
});
const SWAPPED = ['heron', 'osier', 'plover', 'teal'];
const expectations = [{ person: 'Orla ', candidateId: 'osier' }];

describe('what a listener took for the one they expected to win', () => {
  it('is told with its points, those of what it was, and of the others', () => {
    const [orla] = heardAsExpected([listener('orla', [4, 9, 5, 6], SWAPPED)], expectations, candidateOf);
    expect(orla).toMatchObject({ candidateId: 'osier', takenFor: 9, was: 4, others: 5, mistaken: true, isMost: true, most: 1, clips: 4 });
  });

  it('is not told of who guessed nothing or expected nothing', () => {
    expect(heardAsExpected([{ ...listener('Orla', [1, 2, 3, 4], SWAPPED), guess: null }, listener('Tam', [1, 2, 3, 4], SWAPPED)], expectations, candidateOf)).toEqual([]);
  });
});

describe('whether points followed the name', () => {
  const of = (people: ReturnType<typeof listener>[]) =>
    heardAsExpected(
      people,
      people.map(({ name }) => ({ person: name, candidateId: 'osier' })),
      candidateOf,
    );
  const crowd = (count: number, points: number[], taken = SWAPPED) => Array.from({ length: count }, (_, at) => listener(`L${at}`, points, taken));

  it('is said where many who were mistaken gave the most to the one that they took for it', () => {
    // Three of three at one in four each: 1/64.
    expect(expectationText(of(crowd(3, [4, 9, 5, 6])))).toBe(
      '3 listeners took another clip for the one they expected to win, and 3 gave it the most points; names that move nothing come to as many in 1.6 % of cases: points followed the name more than the sound.',
    );
  });

  it('is not said of one, of those who gave the most to others, or where all clips got the same', () => {
    for (const people of [crowd(1, [4, 9, 5, 6]), crowd(5, [9, 4, 5, 6]), crowd(5, [5, 5, 5, 5])]) expect(expectationText(of(people))).toContain('not shown');
  });

  it('is not asked where they were right: they may have heard that it is good', () => {
    expect(expectationText(of(crowd(6, [9, 1, 1, 1], ['osier', 'heron', 'plover', 'teal'])))).toBeNull();
  });

  it('counts unequal coins as they fall, over all ways', () => {
    const chances = [0.5, 0.25, 0.2, 1 / 3];
    for (let most = 0; most <= 4; most++) {
      let sum = 0;
      for (let way = 0; way < 16; way++) {
        const heads = chances.map((_, at) => (way >> at) & 1);
        if (heads.filter(Boolean).length >= most) sum += chances.reduce((product, chance, at) => product * (heads[at] ? chance : 1 - chance), 1);
      }
      expect(likelyAsMany(most, chances)).toBeCloseTo(sum, 12);
    }
  });
});
