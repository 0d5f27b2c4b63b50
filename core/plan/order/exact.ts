import { filled } from '../../audio/filled.ts';
import { type CostTable, pairCostS } from './changeCost.ts';

/** Up to so many takes the best order is found for certain; beyond, work and memory double with each take. */
export const EXACT_UP_TO = 12;

/**
 * The order with the least change time, by dynamic programming over subsets: the cheapest way to do a
 * set of takes beginning at one of them (Held and Karp, 1962). Of orders that cost the same it is the
 * one that keeps closest to the order given.
 * @param start take that the order must begin with; null when any may
 */
export function exactOrder(table: CostTable, start: number | null = null): number[] {
  const n = table.size;
  if (n === 0) return [];
  const cost = filled(n * n, (at) => pairCostS(table, Math.floor(at / n), at % n));
  const sets = 1 << n;
  const best = new Float64Array(sets * n).fill(Number.POSITIVE_INFINITY);
  for (let set = 1; set < sets; set++) {
    for (let first = 0; first < n; first++) {
      if (!(set & (1 << first))) continue;
      const rest = set & ~(1 << first);
      best[set * n + first] = rest === 0 ? 0 : Number.POSITIVE_INFINITY;
      for (let next = 0; next < n; next++) {
        if (!(rest & (1 << next))) continue;
        const there = (cost[first * n + next] as number) + (best[rest * n + next] as number);
        if (there < (best[set * n + first] as number)) best[set * n + first] = there;
      }
    }
  }
  const path: number[] = [];
  let rest = sets - 1;
  for (let step = 0; step < n; step++) {
    const last = path.at(-1);
    let next = -1;
    let least = Number.POSITIVE_INFINITY;
    for (let take = 0; take < n; take++) {
      if (!(rest & (1 << take)) || (last === undefined && start !== null && take !== start)) continue;
      const here = (best[rest * n + take] as number) + (last === undefined ? 0 : (cost[last * n + take] as number));
      if (here < least - 1e-9) {
        least = here;
        next = take;
      }
    }
    path.push(next);
    rest &= ~(1 << next);
  }
  return path;
}
