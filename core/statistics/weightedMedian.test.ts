import fc from 'fast-check';
import { median } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { weightedMedian } from './weightedMedian.ts';

describe('the middle of values that weigh unequally', () => {
  it('is the median with equal weights', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 10 }), { minLength: 1, maxLength: 9 }), (values) => {
        expect(
          weightedMedian(
            values,
            values.map(() => 0.7),
          ),
        ).toBe(median(values));
      }),
    );
  });

  it('is that of the values as often as they weigh', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 10 }), fc.integer({ min: 1, max: 5 })), { minLength: 1, maxLength: 7 }), (pairs) => {
        const written = pairs.flatMap(([value, times]) => Array.from({ length: times }, () => value));
        expect(
          weightedMedian(
            pairs.map(([value]) => value),
            pairs.map(([, times]) => times),
          ),
        ).toBe(median(written));
      }),
    );
  });
});
