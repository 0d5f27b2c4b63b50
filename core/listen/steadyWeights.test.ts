import { mean } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { randomSource } from '../simulate/random.ts';
import { steadyWeights } from './steadyWeights.ts';

describe('how much listeners weigh by their steadiness', () => {
  it('weighs all alike where nothing was hidden, or all are alike', () => {
    expect(steadyWeights([[], []])).toEqual([1, 1]);
    expect(
      steadyWeights([
        [1, 2],
        [2, 1],
        [1, -2],
      ]),
    ).toEqual([1, 1, 1]);
  });

  it('is one over the variance of a judgement, drawn toward that of all', () => {
    // Differences of 0 and of 4: squares over two are 0 and 16 in two judgements each, 4 in the mean of all four.
    const [steady, wild] = [1 / (1 + 16 / 6), 1 / (1 + (16 + 16) / 6)];
    const mid = (steady + wild) / 2;
    const [first, second] = steadyWeights([
      [0, 0],
      [4, 4],
    ]);
    expect(first).toBeCloseTo(steady / mid, 12);
    expect(second).toBeCloseTo(wild / mid, 12);
  });

  it('brings the mean of listeners of unequal steadiness nearer to the truth, and takes little from equal ones', () => {
    const { uniform } = randomSource(7);
    const normal = () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());
    const errorOf = (spreads: readonly number[], weighed: boolean) => {
      const squares = Array.from({ length: 4_000 }, () => {
        const apart = spreads.map((spread) => Array.from({ length: 3 }, () => spread * (normal() - normal())));
        const weights = weighed ? steadyWeights(apart) : spreads.map(() => 1);
        // Each listener is off by taste, and by how wildly they judge.
        const off = spreads.map((spread) => normal() + spread * normal());
        return (off.reduce((sum, each, at) => sum + each * (weights[at] as number), 0) / weights.reduce((sum, each) => sum + each, 0)) ** 2;
      });
      return Math.sqrt(mean(squares));
    };
    expect(errorOf([0.5, 0.5, 4], true)).toBeLessThan(0.9 * errorOf([0.5, 0.5, 4], false));
    expect(errorOf([1.5, 1.5, 1.5], true)).toBeLessThan(1.05 * errorOf([1.5, 1.5, 1.5], false));
  });
});
