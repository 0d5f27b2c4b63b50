import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import numbers from './forests.json' with { type: 'json' };
import { FEATURES } from './frameFeatures.ts';
import { LIKELY_TARGETS } from './standoutKinds.ts';
import { type Forest, Trees } from './trees.ts';

/** The same forest followed from the root by words, not by index. */
function followed({ depth, bias, features, thresholds, leaves }: Forest, row: readonly number[]): number {
  const branchings = 2 ** depth - 1;
  let sum = bias;
  for (let tree = 0; tree * branchings < features.length; tree++) {
    const go = (node: number): number => {
      if (node >= branchings) return leaves[tree * (branchings + 1) + node - branchings] as number;
      const at = tree * branchings + node;
      return go(Math.fround(row[features[at] as number] as number) > Math.fround(thresholds[at] as number) ? 2 * node + 2 : 2 * node + 1);
    };
    sum += go(0);
  }
  return 1 / (1 + Math.exp(-sum));
}

describe('forests', () => {
  const value = fc.double({ min: -5, max: 5, noNaN: true });
  const forest = fc.integer({ min: 1, max: 4 }).chain((depth) =>
    fc.integer({ min: 1, max: 5 }).chain((trees) => {
      const list = <T>(of: fc.Arbitrary<T>, length: number) => fc.array(of, { minLength: length, maxLength: length });
      const branchings = 2 ** depth - 1;
      return fc.record({
        depth: fc.constant(depth),
        bias: value,
        features: list(fc.integer({ min: 0, max: 3 }), trees * branchings),
        thresholds: list(value, trees * branchings),
        leaves: list(value, trees * (branchings + 1)),
      });
    }),
  );

  it('answer as each tree followed from its root does, wherever the row begins', () => {
    fc.assert(
      fc.property(forest, fc.array(value, { minLength: 4, maxLength: 4 }), (grown, row) => {
        expect(new Trees(grown, 4).probability(Float32Array.from([9, 9, ...row]), 2)).toBeCloseTo(followed(grown, row), 5);
      }),
      { numRuns: 200 },
    );
  });

  it('those that ship are whole, and ask only for features that there are', () => {
    for (const target of LIKELY_TARGETS) {
      const { depth, features, thresholds, leaves } = numbers[target];
      expect(features.length % (2 ** depth - 1)).toBe(0);
      expect(thresholds).toHaveLength(features.length);
      expect(leaves).toHaveLength((features.length / (2 ** depth - 1)) * 2 ** depth);
      expect(features.every((feature) => Number.isInteger(feature) && feature >= 0 && feature < FEATURES)).toBe(true);
      expect([...thresholds, ...leaves].every(Number.isFinite)).toBe(true);
    }
  });
});
