/** A judgement has something of the listener's own taste in it, in points, however steady it is: nobody weighs more than this leaves. */
const TASTE_POINTS = 1;
/** A few clips heard twice say little of a listener: what the listeners are like in the mean counts as so many more. */
const AS_MANY_MORE = 4;

/**
 * How much each listener of a round weighs by how alike they judged one clip that was there twice: one over the variance of a
 * judgement, as where means of unequal sureness are put together (R. DerSimonian and N. Laird, Meta-analysis in clinical trials, 1986).
 * @param apart of each listener the points between the two judgements, on each criterion
 * @returns weights whose mean is 1
 * @example steadyWeights([[0, 0], [4, 4]]) // [1.38, 0.62]
 */
export function steadyWeights(apart: readonly (readonly number[])[]): number[] {
  // Two judgements of one thing lie apart by the variance of both.
  const squares = apart.map((points) => points.reduce((sum, each) => sum + each ** 2 / 2, 0));
  const judged = apart.reduce((sum, points) => sum + points.length, 0);
  if (judged === 0) return apart.map(() => 1);
  const usual = squares.reduce((sum, each) => sum + each, 0) / judged;
  const weights = apart.map((points, at) => 1 / (TASTE_POINTS ** 2 + ((squares[at] as number) + AS_MANY_MORE * usual) / (points.length + AS_MANY_MORE)));
  const mean = weights.reduce((sum, each) => sum + each, 0) / weights.length;
  return weights.map((each) => each / mean);
}
