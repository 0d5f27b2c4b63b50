import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { kernelTrees, plainTrees } from './forest.ts';

describe('trees that are asked', () => {
  const value = fc.double({ min: -5, max: 5, noNaN: true });
  const WIDTH = 6;
  const trees = fc.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 9 })).chain(([depth, count]) => {
    const list = <T>(of: fc.Arbitrary<T>, length: number) => fc.array(of, { minLength: length, maxLength: length });
    const branchings = count * (2 ** depth - 1);
    return fc.record({
      depth: fc.constant(depth),
      features: list(fc.integer({ min: 0, max: WIDTH - 1 }), branchings),
      thresholds: list(value, branchings),
      leaves: list(value, count * 2 ** depth),
    });
  });

  it('answer alike in the kernel and in its plain form, however many there are', () => {
    fc.assert(
      fc.property(trees, fc.array(fc.array(value, { minLength: WIDTH, maxLength: WIDTH }), { minLength: 1, maxLength: 3 }), (grown, rows) => {
        const [plain, kernel] = [plainTrees(grown, WIDTH), kernelTrees(grown, WIDTH)!];
        for (const row of rows) {
          plain.row.set(row);
          kernel.row.set(row);
          expect(kernel.sum()).toBeCloseTo(plain.sum(), 9);
        }
      }),
      { numRuns: 200 },
    );
  });
});
