import { median } from 'simple-statistics';
import { clusterRobust } from '../../statistics/clusterRobust.ts';
import { type Fitted, leastSquares } from '../../statistics/leastSquares.ts';
import { studentQuantile } from '../../statistics/studentT.ts';
import { columnsOf, type ErrorOf, NO_LEVEL, type Term, termsOf, told } from './model.ts';
import type { Observation, Observed, TermKind } from './observations.ts';
import { type Together, type TogetherOf, togetherOf } from './together.ts';

/** A difference between two levels, the first less the second, with what 95 of 100 such intervals hold. */
export interface Difference {
  levels: [more: string, less: string];
  estimate: number;
  /** Null where there are too few takes to say. */
  low: number | null;
  high: number | null;
}

/** What one term made of a figure. */
export interface TermEffect {
  term: TermKind;
  /** The largest difference between two of its levels; null where none can be told. */
  most: Difference | null;
  /** Levels by how they lie to the middle of all, largest first; those that cannot be told are left out. */
  levels: { level: string; estimate: number }[];
  /** Part of the variance that only this term explains, 0 to 1. */
  share: number;
  /** Terms that it cannot be told from, because they were never changed without it. */
  aliasedWith: TermKind[];
}

/** What made the difference in one figure. */
export interface Effects {
  criterionId: string;
  terms: TermEffect[];
  /** Terms that were asked about together: whether one does more at some levels of the other. */
  together: Together[];
  observations: number;
  takes: number;
  leftOut: number;
  /** Part of the variance that the model explains. */
  explained: number;
  /** Values that do not fit it: further from it than 3.5 robust standard deviations. */
  strange: { takeId: string; candidateId: string; residual: number }[];
}

/** B. Iglewicz and D. C. Hoaglin, How to detect and handle outliers, 1993: modified z-scores. */
const [STRANGE, MAD_TO_SD] = [3.5, 0.6745];
const NONE = 1e-9;

/** What made the difference: least squares over all values, with errors that respect that those of one take belong together. Null for fewer than three values or one take. */
export function effectsOf({ criterionId, observations, leftOut }: Observed, asked: readonly TogetherOf[] = []): Effects | null {
  const takes = new Set(observations.map(({ takeId }) => takeId)).size;
  if (observations.length < 3 || takes < 2) return null;
  const values = Float64Array.from(observations, ({ value }) => value);
  const terms = termsOf(observations);
  const columns = columnsOf(terms, observations);
  const fitted = leastSquares(columns, values) as Fitted;
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const total = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  const errorOf = clusterRobust(
    fitted,
    observations.map(({ takeId }) => takeId),
  );
  return {
    criterionId,
    terms: terms.map((term) => ({
      term: term.kind,
      ...differences(term, fitted, errorOf),
      share: total <= NONE ? 0 : Math.max(0, (without(term, terms, observations, values) - fitted.residualSquares) / total),
      aliasedWith: aliasesOf(term, terms, fitted),
    })),
    together: togetherOf(terms, observations, values, total, asked),
    observations: observations.length,
    takes,
    leftOut,
    explained: total <= NONE ? 0 : Math.max(0, 1 - fitted.residualSquares / total),
    strange: strangeOf(observations, fitted.residuals),
  };
}

/** What is left unexplained without a term. */
function without(term: Term, terms: readonly Term[], observations: readonly Observation[], values: Float64Array): number {
  const others = columnsOf(
    terms.filter((each) => each !== term),
    observations,
  );
  return (leastSquares(others, values) as Fitted).residualSquares;
}

function differences(term: Term, fitted: Fitted, errorOf: ErrorOf): Pick<TermEffect, 'most' | 'levels'> {
  const columnOf = (level: number) => (level === 0 ? null : (term.columns[level - 1] as number));
  const real = [...term.levels.keys()].filter((at) => term.levels[at] !== NO_LEVEL);
  const pairs = real.flatMap((a) =>
    real.flatMap((b) => {
      if (b <= a) return [];
      const weights = new Map<number, number>();
      const [first, second] = [columnOf(a), columnOf(b)];
      if (first !== null) weights.set(first, 1);
      if (second !== null) weights.set(second, -1);
      const contrast = told(weights, fitted, errorOf);
      return contrast ? [{ a, b, contrast }] : [];
    }),
  );
  // The largest of several differences is large by luck sooner than one: the doubt is shared out over all of them.
  const spans = pairs.map(({ a, b, contrast }): Difference => {
    const turned = contrast.estimate < 0;
    const half = contrast.df >= 1 ? studentQuantile(1 - 0.025 / pairs.length, contrast.df) * contrast.standardError : null;
    const estimate = Math.abs(contrast.estimate);
    const levels = [term.levels[turned ? b : a], term.levels[turned ? a : b]] as [string, string];
    return { levels, estimate, low: half === null ? null : estimate - half, high: half === null ? null : estimate + half };
  });
  const most = spans.reduce<Difference | null>((largest, each) => (each.estimate > (largest?.estimate ?? -1) ? each : largest), null);
  const levels = real.flatMap((at) => {
    const level = term.levels[at] as string;
    const weights = new Map(real.flatMap((each) => (columnOf(each) === null ? [] : [[columnOf(each) as number, -1 / real.length]])));
    const own = columnOf(at);
    if (own !== null) weights.set(own, (weights.get(own) ?? 0) + 1);
    const contrast = told(weights, fitted, errorOf);
    return contrast ? [{ level, estimate: contrast.estimate }] : [];
  });
  return { most, levels: levels.sort((a, b) => b.estimate - a.estimate) };
}

/** Terms that a term was never changed without. */
function aliasesOf(term: Term, terms: readonly Term[], { aliased }: Fitted): TermKind[] {
  const owner = (column: number) => terms.find(({ columns }) => columns.includes(column));
  const together = aliased.flatMap(({ column, from }) => {
    const owners = [column, ...from.map((each) => each.column)].flatMap((each) => owner(each) ?? []);
    return owners.includes(term) ? owners : [];
  });
  return [...new Set(together)].filter((each) => each !== term).map(({ kind }) => kind);
}

function strangeOf(observations: readonly Observation[], residuals: Float64Array): Effects['strange'] {
  const size = median(Array.from(residuals, Math.abs));
  if (size <= NONE) return [];
  return observations
    .flatMap(({ takeId, candidateId }, at) => {
      const residual = residuals[at] as number;
      return (MAD_TO_SD * Math.abs(residual)) / size > STRANGE ? [{ takeId, candidateId, residual }] : [];
    })
    .sort((a, b) => Math.abs(b.residual) - Math.abs(a.residual));
}
