import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CriterionComparison } from '../domain/trial.ts';
import { CONSISTENT_UP_TO, pairwiseWeights, wholeWeights } from './pairwise.ts';

const IDS = ['a', 'b', 'c', 'd'];
const compare = (firstId: string, secondId: string, ratio: number): CriterionComparison => ({ firstId, secondId, ratio });
const fromWeights = (weights: readonly number[]): CriterionComparison[] =>
  weights.flatMap((first, i) => weights.slice(i + 1).map((second, j) => compare(IDS[i] as string, IDS[i + 1 + j] as string, first / second)));

describe('weights from comparisons two by two', () => {
  it('give back the weights that the comparisons were made from, and full consistency', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 2, maxLength: 4 }), (weights) => {
        const total = weights.reduce((sum, weight) => sum + weight, 0);
        const { shares, consistencyRatio, oddest } = pairwiseWeights(IDS.slice(0, weights.length), fromWeights(weights));
        shares!.forEach((share, at) => expect(share).toBeCloseTo((weights[at] as number) / total, 6));
        expect(consistencyRatio ?? 0).toBeCloseTo(0, 6);
        expect(oddest).toBeNull();
      }),
    );
  });

  it('a worked case of three: 3, 5 and 2 times as much', () => {
    // a over b 3, a over c 5, b over c 2: lambda is 3.0037, so the index is 0.00185 and the ratio 0.0032.
    const { shares, consistencyRatio } = pairwiseWeights(['a', 'b', 'c'], [compare('a', 'b', 3), compare('a', 'c', 5), compare('b', 'c', 2)]);
    expect(shares!.map((share) => share.toFixed(3))).toEqual(['0.648', '0.230', '0.122']);
    expect(consistencyRatio).toBeCloseTo(0.0032, 4);
  });

  it('a circle contradicts itself, and the oddest pair is one of it', () => {
    const circle = [compare('a', 'b', 5), compare('b', 'c', 5), compare('c', 'a', 5)];
    const { consistencyRatio, oddest, shares } = pairwiseWeights(['a', 'b', 'c'], circle);
    expect(consistencyRatio).toBeGreaterThan(CONSISTENT_UP_TO);
    expect(oddest).not.toBeNull();
    for (const share of shares!) expect(share).toBeCloseTo(1 / 3, 6);
  });

  it('reads a comparison from either side, and names those that are open', () => {
    const there = pairwiseWeights(['a', 'b'], [compare('a', 'b', 4)]);
    const back = pairwiseWeights(['a', 'b'], [compare('b', 'a', 1 / 4)]);
    expect(there).toEqual(back);
    expect(pairwiseWeights(['a', 'b', 'c'], [compare('a', 'b', 4)]).open).toEqual([
      ['a', 'c'],
      ['b', 'c'],
    ]);
  });

  it('works with what was compared: a chain of comparisons gives the same weights as all of them', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 3, maxLength: 4 }), (weights) => {
        const total = weights.reduce((sum, weight) => sum + weight, 0);
        const ids = IDS.slice(0, weights.length);
        const chain = ids.slice(1).map((id, at) => compare(ids[at] as string, id, (weights[at] as number) / (weights[at + 1] as number)));
        const { shares, consistencyRatio, open } = pairwiseWeights(ids, chain);
        shares!.forEach((share, at) => expect(share).toBeCloseTo((weights[at] as number) / total, 6));
        // With every comparison needed once there is nothing that could contradict.
        expect(consistencyRatio).toBeNull();
        expect(open).toHaveLength((ids.length * (ids.length - 1)) / 2 - chain.length);
      }),
    );
  });

  it('a pair that is left open makes nobody else look contradictory', () => {
    // Consistent but for the one pair that is open; counted as equal it would contradict all others.
    const weights = [8, 4, 2, 1];
    const all = fromWeights(weights);
    const { consistencyRatio, shares } = pairwiseWeights(
      IDS,
      all.filter((each) => each.firstId !== 'a' || each.secondId !== 'd'),
    );
    expect(consistencyRatio).toBeCloseTo(0, 6);
    shares!.forEach((share, at) => expect(share).toBeCloseTo((weights[at] as number) / 15, 6));
  });

  it('criteria that nothing connects have no weights yet, and it is said which', () => {
    expect(pairwiseWeights(IDS, [compare('a', 'b', 2), compare('c', 'd', 3)])).toMatchObject({
      shares: null,
      consistencyRatio: null,
      groups: [
        ['a', 'b'],
        ['c', 'd'],
      ],
    });
  });

  it('as whole weights add up to 100', () => {
    expect(wholeWeights([1 / 3, 1 / 3, 1 / 3])).toEqual([34, 33, 33]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 1000 }), { minLength: 1, maxLength: 12 }), (parts) => {
        const total = parts.reduce((sum, part) => sum + part, 0);
        expect(wholeWeights(parts.map((part) => part / total)).reduce((sum, weight) => sum + weight, 0)).toBe(100);
      }),
    );
  });
});
