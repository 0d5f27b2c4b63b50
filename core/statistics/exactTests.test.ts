import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { atLeast, atMost } from './binomial.ts';
import { exactShare, fisherExact } from './exactTests.ts';

describe('exact intervals and tests', () => {
  it.each([
    // By the closed forms for none and all, and by the published table for 5 of 10.
    [0, 10, 0, 1 - 0.025 ** 0.1],
    [10, 10, 0.025 ** 0.1, 1],
    [5, 10, 0.187, 0.813],
  ])('%i of %i lies in %f to %f', (came, tries, low, high) => {
    const [from, to] = exactShare(came, tries, 0.95);
    expect(from).toBeCloseTo(low, 3);
    expect(to).toBeCloseTo(high, 3);
  });

  it('the lady tasting tea: 3 of 4 right is no proof, 4 of 4 is one of 70 on each side', () => {
    expect(fisherExact(3, 1, 1, 3)).toBeCloseTo(34 / 70, 9);
    expect(fisherExact(4, 0, 0, 4)).toBeCloseTo(2 / 70, 9);
    expect(fisherExact(3, 0, 0, 0)).toBe(1);
  });

  it('is the same with both sides exchanged, and a chance', () => {
    const count = fc.integer({ min: 0, max: 12 });
    fc.assert(
      fc.property(count, count, count, count, (a, b, c, d) => {
        const p = fisherExact(a, b, c, d);
        return p > 0 && p <= 1 && Math.abs(p - fisherExact(c, d, a, b)) < 1e-9;
      }),
    );
  });
});

/** Every outcome by itself, in whole numbers: ways to choose times powers, over the power of all. */
function bruteAtLeast(least: number, tries: number, over: bigint, under: bigint): number {
  let ways = 1n;
  let sum = 0n;
  for (let right = 0; right <= tries; right++) {
    if (right >= least) sum += ways * over ** BigInt(right) * (under - over) ** BigInt(tries - right);
    ways = (ways * BigInt(tries - right)) / BigInt(right + 1);
  }
  return Number((sum * 10n ** 18n) / under ** BigInt(tries)) / 1e18;
}

describe('so many or more of tries that come by chance', () => {
  it('is what counting every outcome gives', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.nat(60), fc.constantFrom([1n, 2n], [1n, 3n], [3n, 4n]), (tries, least, [over, under]) => {
        expect(atLeast(least, tries, Number(over) / Number(under))).toBeCloseTo(bruteAtLeast(least, tries, over!, under!), 8);
      }),
    );
  });

  it('and fewer are all there is', () => {
    for (const right of [-1, 0, 3, 16, 17]) expect(atLeast(right + 1, 16, 0.5) + atMost(right, 16, 0.5)).toBeCloseTo(1, 12);
    expect(atLeast(0, 16, 0.5)).toBe(1);
    expect(atLeast(17, 16, 0.5)).toBe(0);
    expect(atLeast(3, 3, 1)).toBe(1);
    expect(atLeast(1, 3, 0)).toBe(0);
  });
});
