/**
 * The middle of values that weigh unequally: half of the weight lies below it and half above; between two values where it falls
 * between them, so that with equal weights it is the median.
 * @example weightedMedian([1, 2, 9], [1, 1, 1]) // 2
 */
export function weightedMedian(values: readonly number[], weights: readonly number[]): number {
  const sorted = values.map((value, at) => ({ value, weight: weights[at] as number })).sort((a, b) => a.value - b.value);
  const half = sorted.reduce((sum, { weight }) => sum + weight, 0) / 2;
  let below = 0;
  for (const [at, { value, weight }] of sorted.entries()) {
    below += weight;
    if (Math.abs(below - half) <= 1e-9 * half) return (value + (sorted[at + 1]?.value ?? value)) / 2;
    if (below > half) return value;
  }
  return Number.NaN;
}
