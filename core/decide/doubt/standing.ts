import type { Criterion } from '../../domain/criterion.ts';
import { desirability } from '../desirability.ts';
import type { CriterionDrawn, Layout } from './drawn.ts';

/** How a candidate stands in a draw. */
export interface Standing {
  score: number | null;
  /** What it is ranked by: the score if all that is missing turned out worst; untested ones come behind. */
  lowest: number;
  untested: boolean;
  ranked: boolean;
}

/** The same rules as those of the verdict: what is missing is left out of the score, and counts as worst for the place. */
export function standingOf(criteria: readonly Criterion[], shares: readonly number[], layouts: readonly Layout[], drawn: readonly CriterionDrawn[]): Standing[] {
  const count = layouts[0]?.own.length ?? 0;
  return Array.from({ length: count }, (_, candidate) => {
    let [sum, weighed, sure] = [0, 0, 0];
    let untested = false;
    let out = false;
    for (const [index, criterion] of criteria.entries()) {
      const layout = layouts[index] as Layout;
      const { values, overLimit } = drawn[index] as CriterionDrawn;
      const breaks = (overLimit[candidate] as number) > 0;
      out ||= breaks;
      // What is known of it does not say that it keeps the limit everywhere.
      untested ||= criterion.dealbreaker !== null && !breaks && !(layout.known[candidate] && layout.complete[candidate]);
      if (!layout.known[candidate]) continue;
      const share = shares[index] as number;
      const good = desirability(values[candidate] as number, criterion);
      sum += share * good;
      weighed += share;
      sure += share * good * (layout.coverage[candidate] as number);
    }
    return { score: weighed > 0 ? (100 * sum) / weighed : null, lowest: 100 * sure, untested, ranked: weighed > 0 && !out };
  });
}

export const isBefore = (a: Standing, b: Standing) => a.ranked && (!b.ranked || (a.untested === b.untested ? a.lowest > b.lowest + 1e-9 : !a.untested));

export function countPlaces(standing: readonly Standing[], best: Float64Array, firstTwo: Float64Array, beats: readonly Float64Array[]): void {
  for (const [own, one] of standing.entries()) {
    let [before, equal] = [0, 0];
    for (const [at, other] of standing.entries()) {
      if (at === own) continue;
      if (isBefore(other, one)) before++;
      else if (isBefore(one, other)) (beats[own] as Float64Array)[at]! += 1;
      else if (one.ranked) {
        equal++;
        (beats[own] as Float64Array)[at]! += 0.5;
      }
    }
    if (!one.ranked) continue;
    // Who shares a place has its part of all the places that they take.
    if (before === 0) best[own]! += 1 / (equal + 1);
    if (before < 2) firstTwo[own]! += Math.min(1, (2 - before) / (equal + 1));
  }
}

/** Who stands before all others; null where nobody does. */
export function firstOf(criteria: readonly Criterion[], shares: readonly number[], layouts: readonly Layout[], drawn: readonly CriterionDrawn[]): number | null {
  const standing = standingOf(criteria, shares, layouts, drawn);
  const first = standing.findIndex((one, own) => one.ranked && standing.every((other, at) => at === own || isBefore(one, other)));
  return first < 0 ? null : first;
}
