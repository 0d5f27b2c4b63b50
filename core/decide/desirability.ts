import type { Criterion } from '../domain/criterion.ts';

/**
 * How good a raw value is, from 0 at `worst` and beyond to 1 at `best`, straight between. Which of the two
 * is the larger says which way is better. Where the best lies in the middle, it falls again to 0 at
 * `otherWorst` on the other side of the best.
 * @example desirability(20, { best: 40, worst: 0, otherWorst: null }) // 0.5
 * @example desirability(-2, { best: -5, worst: -11, otherWorst: 1 }) // 0.5
 */
export function desirability(value: number, { best, worst, otherWorst }: Pick<Criterion, 'best' | 'worst' | 'otherWorst'>): number {
  const beyond = (value - best) * (worst - best) < 0;
  const end = beyond && otherWorst !== null ? otherWorst : worst;
  return Math.max(0, Math.min(1, (value - end) / (best - end)));
}
