/** Letters under which clips are heard, A to Z. */
export const BLIND_LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'.split('');

/**
 * A random order of `count` clips (Fisher-Yates): the clip at place 0 is heard under A.
 * @param uniform random numbers in [0, 1)
 */
export function blindOrder(count: number, uniform: () => number): number[] {
  const order = Array.from({ length: count }, (_, index) => index);
  for (let index = count - 1; index > 0; index--) {
    const other = Math.floor(uniform() * (index + 1));
    [order[index], order[other]] = [order[other] as number, order[index] as number];
  }
  return order;
}

/** The clip that a listener hears under a letter, as its place in the round; undefined for a letter that there is not. */
export function placeOfLetter(order: readonly number[], letter: string): number | undefined {
  return order[BLIND_LETTERS.indexOf(letter)];
}
