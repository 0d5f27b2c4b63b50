import { describe, expect, it } from 'vitest';
import { guessedRight, guessText, rightByChance, rightByChanceOfAll } from './guess.ts';

/** Every dealing of n things, with how many lie right. */
function dealings(n: number): number[] {
  const all: number[] = [];
  const deal = (left: number[], at: number, right: number) => {
    if (left.length === 0) return void all.push(right);
    for (const each of left)
      deal(
        left.filter((other) => other !== each),
        at + 1,
        right + (each === at ? 1 : 0),
      );
  };
  deal(
    Array.from({ length: n }, (_, index) => index),
    0,
    0,
  );
  return all;
}

describe('guesses that come out right by chance', () => {
  it.each([1, 2, 3, 4, 5, 6, 7])('of %i things are those of all dealings, counted', (n) => {
    const all = dealings(n);
    for (let right = 0; right <= n + 1; right++) expect(rightByChance(right, n)).toBeCloseTo(all.filter((each) => each >= right).length / all.length, 12);
  });

  it('of two listeners together are those of all pairs of dealings', () => {
    const [a, b] = [dealings(3), dealings(4)];
    for (let right = 0; right <= 7; right++) {
      const counted = a.reduce((sum, one) => sum + b.filter((other) => one + other >= right).length, 0) / (a.length * b.length);
      expect(rightByChanceOfAll(right, [3, 4])).toBeCloseTo(counted, 12);
    }
  });

  it('of twelve all right are one in the number of dealings', () => expect(rightByChance(12, 12) * 479_001_600).toBeCloseTo(1, 6));
});

describe('a guess', () => {
  const letters = { A: 'r1', B: 'r2', C: 'r3' };
  const candidateOf = (id: string) => ({ r1: 'x', r2: 'y', r3: 'z' })[id];
  it('is right where a letter is taken for what it was', () => {
    expect(guessedRight({ A: 'x', B: 'z', C: 'y' }, letters, candidateOf)).toEqual({ right: 1, of: 3 });
    expect(guessedRight({ A: 'x', B: 'y', C: 'z' }, letters, candidateOf)).toEqual({ right: 3, of: 3 });
  });

  it('is told against chance', () => {
    // All of three are right in one dealing of six, of two listeners in one of thirty-six.
    expect(guessText([{ right: 3, of: 3 }])).toBe('3 of 3 guessed right; who guesses blindly gets as many in 17 % of cases: it is not shown that they are known by ear.');
    expect(
      guessText([
        { right: 3, of: 3 },
        { right: 3, of: 3 },
      ]),
    ).toBe('6 of 6 guessed right; who guesses blindly gets as many in 2.8 % of cases: they are known by ear.');
  });
});
