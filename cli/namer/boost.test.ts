import { Trees } from '@marvet/core/measure/events/trees';
import { randomSource } from '@marvet/core/simulate/random';
import { describe, expect, it } from 'vitest';
import { boost } from './boost.ts';

const ROWS = 4000;
const options = (seed: number) => ({ trees: 30, depth: 3, rate: 0.3, share: 1, smoothing: 5, random: randomSource(seed) });

/** Rows of three features, the third of which has nothing to do with it. */
function examples(seed: number, isSo: (a: number, b: number) => boolean) {
  const random = randomSource(seed);
  const values = Float32Array.from({ length: ROWS * 3 }, () => random.uniform());
  const targets = Uint8Array.from({ length: ROWS }, (_, row) => +isSo(values[3 * row] as number, values[3 * row + 1] as number));
  return { width: 3, values, targets, weights: new Float32Array(ROWS).fill(1) };
}

function rightOf(forest: ReturnType<typeof boost>, { values, targets }: ReturnType<typeof examples>): number {
  const trees = new Trees(forest, 3);
  return targets.reduce((sum, target, row) => sum + +(trees.probability(values, 3 * row) > 0.5 === (target === 1)), 0) / ROWS;
}

describe('growing trees', () => {
  it.each([
    ['a threshold', (a: number) => a > 0.3],
    ['either but not both', (a: number, b: number) => a > 0.5 !== b > 0.5],
    ['a slanting line', (a: number, b: number) => a + b > 1.1],
  ])('learns %s, and knows it on rows that it never saw', (_what, isSo) => {
    expect(rightOf(boost(examples(1, isSo), options(2)), examples(3, isSo))).toBeGreaterThan(0.96);
  });

  it('of what has nothing to learn from, says how often it is so', () => {
    const random = randomSource(8);
    const noise = { ...examples(1, () => false), targets: Uint8Array.from({ length: ROWS }, () => +(random.uniform() < 0.2)) };
    const trees = new Trees(boost(noise, { ...options(2), trees: 5, smoothing: 50 }), 3);
    const mean = noise.targets.reduce((sum, _, row) => sum + trees.probability(noise.values, 3 * row), 0) / ROWS;
    expect(Math.abs(mean - 0.2)).toBeLessThan(0.03);
  });

  it('rows count by their weight', () => {
    const { width, values, targets } = examples(1, (a) => a > 0.5);
    const weights = Float32Array.from(targets, (target) => (target === 1 ? 0 : 1));
    expect(new Trees(boost({ width, values, targets, weights }, options(2)), width).probability(Float32Array.from([0.9, 0.5, 0.5]), 0)).toBeLessThan(0.1);
  });

  it('the same seed grows the same trees', () => {
    expect(
      boost(
        examples(1, (a) => a > 0.3),
        options(5),
      ),
    ).toEqual(
      boost(
        examples(1, (a) => a > 0.3),
        options(5),
      ),
    );
  });
});
