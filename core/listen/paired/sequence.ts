import { blindOrder } from '../blindOrder.ts';

/** Comparisons that are laid ready where no number was given. */
const LAID_READY = 60;

/** A comparison: places of the round's recordings in the order of its letters. Of "is X A or B" the third is X. */
export type Comparison = number[];

/** Every two of some recordings, by their places. */
export const pairsOf = (count: number): [number, number][] =>
  Array.from({ length: count }, (_, a) => Array.from({ length: count - a - 1 }, (_each, b) => [a, a + b + 1] as [number, number])).flat();

/**
 * Whether X is A or B, so often: A and B stay what they are, so that they can be learned, and X is thrown each time. A list that holds
 * both equally often would let the last ones be counted out.
 * @param uniform random numbers in [0, 1)
 */
export function sameComparisons(comparisons: number | null, uniform: () => number): Comparison[] {
  const [a, b] = uniform() < 0.5 ? [0, 1] : [1, 0];
  return Array.from({ length: comparisons ?? LAID_READY }, () => [a, b, uniform() < 0.5 ? a : b]);
}

/** Which of three is the odd one: each of the six arrangements is as likely each time. */
export function oddComparisons(comparisons: number | null, uniform: () => number): Comparison[] {
  return Array.from({ length: comparisons ?? LAID_READY }, () => {
    const odd = uniform() < 0.5 ? 0 : 1;
    const place = Math.min(2, Math.floor(uniform() * 3));
    return [0, 1, 2].map((at) => (at === place ? odd : 1 - odd));
  });
}

/**
 * Which of two is better, for every two of some recordings: each pair once in every block, the blocks in an order of their own, and
 * each pair as often one way round as the other, since what is heard first is judged otherwise.
 * @param comparisons for each pair
 */
export function betterComparisons(count: number, comparisons: number | null, uniform: () => number): Comparison[] {
  const pairs = pairsOf(count);
  const blocks = comparisons ?? Math.max(1, Math.floor(LAID_READY / pairs.length));
  let turned: boolean[] = [];
  return Array.from({ length: blocks }, (_, block) => {
    turned = block % 2 === 0 ? pairs.map(() => uniform() < 0.5) : turned.map((each) => !each);
    const own = turned;
    return blindOrder(pairs.length, uniform).map((pair): Comparison => {
      const [a, b] = pairs[pair] as [number, number];
      return own[pair] ? [b, a] : [a, b];
    });
  }).flat();
}
