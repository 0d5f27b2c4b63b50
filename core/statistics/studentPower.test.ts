import { describe, expect, it } from 'vitest';
import { randomSource } from '../simulate/random.ts';
import { studentPower } from './studentPower.ts';
import { studentQuantile } from './studentT.ts';

describe('the power of Student’s test', () => {
  it('is its level where there is no difference, and with endless values that of the normal test', () => {
    for (const df of [1, 5, 40]) expect(studentPower(0, df, 0.05)).toBeCloseTo(0.05, 3);
    // 1 - Φ(1.96 - 2) + Φ(-1.96 - 2)
    expect(studentPower(2, 3_000, 0.05)).toBeCloseTo(0.516, 2);
  });

  it('is what counting simulated tests says', () => {
    const random = randomSource(5);
    for (const [times, df] of [
      [2, 5],
      [2, 15],
      [3, 11],
    ] as const) {
      const runs = 20_000;
      let found = 0;
      for (let run = 0; run < runs; run++) {
        let squares = 0;
        for (let each = 0; each < df; each++) squares += random.normal() ** 2;
        if (Math.abs((times + random.normal()) / Math.sqrt(squares / df)) > studentQuantile(0.975, df)) found++;
      }
      expect(studentPower(times, df, 0.05)).toBeCloseTo(found / runs, 1.7);
    }
  });
});
