import type { Criterion } from '../../domain/criterion.ts';
import { desirability } from '../desirability.ts';
import type { CriterionDrawn, Layout } from './drawn.ts';

/** Running mean and sum of squares of differences from it (B. P. Welford, 1962). */
export class Spread {
  private count = 0;
  private middle = 0;
  private squares = 0;

  add(value: number): void {
    this.count++;
    const off = value - this.middle;
    this.middle += off / this.count;
    this.squares += off * (value - this.middle);
  }

  get mean(): number {
    return this.middle;
  }

  get variance(): number {
    return this.count < 2 ? 0 : this.squares / (this.count - 1);
  }
}

/** What it takes to tell a candidate from the first one. */
export interface ToSettle {
  /** Takes more, of the kind there are, until the difference would be clear if it is what it seems; null where it seems to be none. */
  moreTakes: number | null;
  /** The criterion in which most of the doubt lies, and which part of it. */
  criterionId: string;
  share: number;
  /** Points that the first is ahead in the mean of all draws, and half of the width in which 95 of 100 lie. */
  aheadPoints: number;
  withinPoints: number;
  /** Takes that it rests on. */
  takes: number;
}

/** A normal deviate beyond which 2.5 % lie. */
const CLEAR = 1.959964;

/**
 * How many takes more would make a difference clear: the error of a mean falls with the root of how many it is made of.
 * @param takes that it rests on now
 */
export function moreTakes(mean: number, variance: number, takes: number): number | null {
  if (mean <= 0 || takes < 2) return null;
  return Math.max(1, Math.ceil(takes * ((CLEAR ** 2 * variance) / mean ** 2 - 1)));
}

/** How far the first is ahead of a candidate, in all and by criterion. */
export interface Gaps {
  all: Spread;
  by: Spread[];
}

export function addGaps(
  gaps: readonly Gaps[],
  first: number,
  criteria: readonly Criterion[],
  shares: readonly number[],
  layouts: readonly Layout[],
  drawn: readonly CriterionDrawn[],
): void {
  for (const [candidate, { all, by }] of gaps.entries()) {
    let sum = 0;
    for (const [index, criterion] of criteria.entries()) {
      const layout = layouts[index] as Layout;
      const { values } = drawn[index] as CriterionDrawn;
      const good = (of: number) => (layout.known[of] ? desirability(values[of] as number, criterion) * (layout.coverage[of] as number) : 0);
      const gap = 100 * (shares[index] as number) * (good(first) - good(candidate));
      by[index]?.add(gap);
      sum += gap;
    }
    all.add(sum);
  }
}

export function settled({ all, by }: Gaps, criteria: readonly Criterion[], takes: number): ToSettle | null {
  const widest = by.reduce((most, each, at) => (each.variance > (by[most]?.variance ?? 0) ? at : most), 0);
  const sum = by.reduce((total, each) => total + each.variance, 0);
  if (sum <= 0) return null;
  return {
    moreTakes: moreTakes(all.mean, all.variance, takes),
    criterionId: criteria[widest]?.id ?? '',
    share: (by[widest]?.variance ?? 0) / sum,
    aheadPoints: all.mean,
    withinPoints: CLEAR * Math.sqrt(all.variance),
    takes,
  };
}
