import { blindOrder } from './blindOrder.ts';

/**
 * Orders in which so many clips are heard by as many listeners or twice as many, so that each stands at each place as often as any
 * other, and follows each other one as often: what is heard first, and after what, is judged otherwise (E. J. Williams, Experimental
 * designs balanced for the estimation of residual effects of treatments, 1949). Of an odd number of clips there are twice as many.
 * @example balancedOrders(4)[0] // [0, 1, 3, 2]
 */
export function balancedOrders(count: number): number[][] {
  const first = Array.from({ length: count }, (_, at) => (at % 2 === 0 ? (count - at / 2) % count : (at + 1) / 2));
  const turned = Array.from({ length: count }, (_, row) => first.map((clip) => (clip + row) % count));
  return count % 2 === 0 ? turned : [...turned, ...turned.map((order) => [...order].reverse())];
}

/**
 * The order of the next listener of a round: the first one's is drawn, and those of the others follow from it, so that all of them
 * together are balanced as well as so many can be. Who knows one order knows none of the others, since they come in a drawn order.
 * @param others orders that were given before
 * @param uniform random numbers in [0, 1)
 */
export function nextOrder(count: number, others: readonly (readonly number[])[], uniform: () => number): number[] {
  const [first] = others;
  if (!first) return blindOrder(count, uniform);
  const rows = balancedOrders(count);
  // What the clips are called in the square: the first listener's order is its first row.
  const clipOf = new Map((rows[0] as number[]).map((name, at) => [name, first[at] as number]));
  const named = rows.map((row) => row.map((name) => clipOf.get(name) as number));
  const used = named.map((row) => others.filter((order) => String(order) === String(row)).length);
  const least = Math.min(...used);
  const open = named.filter((_, at) => used[at] === least);
  return open[Math.floor(uniform() * open.length)] as number[];
}
