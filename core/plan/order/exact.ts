import { type CostTable, pairCostS } from './changeCost.ts';

/** Up to so many takes the best order is found for certain; beyond, work and memory double with each take. */
export const EXACT_UP_TO = 12;

/**
 * The order with the least change time, by dynamic programming over subsets: the cheapest way to have
 * done a set of takes and to stand at one of them (Held and Karp, 1962).
 * @param start take that the order must begin with; null when any may
 */
export function exactOrder(table: CostTable, start: number | null = null): number[] {
  const n = table.size;
  if (n === 0) return [];
  const cost = Float64Array.from({ length: n * n }, (_, at) => pairCostS(table, Math.floor(at / n), at % n));
  const sets = 1 << n;
  const best = new Float64Array(sets * n).fill(Number.POSITIVE_INFINITY);
  const from = new Int8Array(sets * n).fill(-1);
  for (let take = 0; take < n; take++) if (start === null || take === start) best[(1 << take) * n + take] = 0;
  for (let set = 1; set < sets; set++) {
    for (let last = 0; last < n; last++) {
      const here = best[set * n + last] as number;
      if (here === Number.POSITIVE_INFINITY) continue;
      for (let next = 0; next < n; next++) {
        if (set & (1 << next)) continue;
        const place = (set | (1 << next)) * n + next;
        const there = here + (cost[last * n + next] as number);
        if (there < (best[place] as number)) {
          best[place] = there;
          from[place] = last;
        }
      }
    }
  }
  let set = sets - 1;
  let last = 0;
  for (let take = 1; take < n; take++) if ((best[set * n + take] as number) < (best[set * n + last] as number)) last = take;
  const path: number[] = [];
  while (last >= 0) {
    path.push(last);
    const before = from[set * n + last] as number;
    set &= ~(1 << last);
    last = before;
  }
  return path.reverse();
}
