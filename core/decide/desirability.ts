/**
 * How good a raw value is, from 0 at `worst` and beyond to 1 at `best` and beyond, straight between.
 * Which of the two is the larger says which way is better.
 * @example desirability(20, 40, 0) // 0.5
 */
export function desirability(value: number, best: number, worst: number): number {
  return Math.max(0, Math.min(1, (value - worst) / (best - worst)));
}
