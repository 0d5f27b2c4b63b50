import type { SolveWhole } from './wholeNumbers.ts';

/**
 * The fewest wishes that cannot all be met, by turns of the smallest set that meets every known way out (A. Ignatiev, A. Previti,
 * M. Liffiton and J. Marques-Silva, Smallest MUS extraction with minimal hitting set dualization, 2015): proven smallest.
 * @param count of wishes, which are told by their place
 * @param possible whether some of them can be met together; never false for some where it is true for more
 * @returns their places; empty where all can be met
 */
export function smallestConflict(count: number, possible: (some: readonly number[]) => boolean, solve: SolveWhole): number[] {
  const all = Array.from({ length: count }, (_, index) => index);
  if (possible(all)) return [];
  /** Wishes of which giving up all makes the rest possible: a conflict holds at least one of each. */
  const waysOut: number[][] = [];
  for (;;) {
    const picked = solve(
      { most: all.map(() => 1), rows: waysOut.map((out) => ({ terms: out.map((index) => [index, 1] as const), least: 1, most: null })) },
      all.map(() => -1),
    ) as number[];
    const tried = all.filter((index) => picked[index] === 1);
    if (!possible(tried)) return tried;
    const kept = [...tried];
    for (const index of all) if (!kept.includes(index) && possible([...kept, index])) kept.push(index);
    waysOut.push(all.filter((index) => !kept.includes(index)));
  }
}

/**
 * Wishes that cannot all be met, none of which can be left out of them: each in turn is given up where the rest still conflict (J. W.
 * Chinneck and E. W. Dravnieks, Locating minimal infeasible constraint sets in linear programs, 1991). Not proven the fewest, and far quicker.
 * @param possible as for {@link smallestConflict}
 */
export function someConflict(count: number, possible: (some: readonly number[]) => boolean): number[] {
  let kept = Array.from({ length: count }, (_, index) => index);
  if (possible(kept)) return [];
  for (const index of kept) {
    const without = kept.filter((each) => each !== index);
    if (!possible(without)) kept = without;
  }
  return kept;
}
