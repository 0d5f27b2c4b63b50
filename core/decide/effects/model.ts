import { CONDITION_KINDS } from '../../domain/factor.ts';
import type { Contrast } from '../../statistics/clusterRobust.ts';
import type { Fitted } from '../../statistics/leastSquares.ts';
import type { Observation, TermKind } from './observations.ts';

/** Of two that cannot be told apart the later one is named after the earlier. */
const ORDER: readonly TermKind[] = ['candidate', ...CONDITION_KINDS, 'listener'];
/** The level of what has none, as a boom has no rig. */
export const NO_LEVEL = '';
/** Sums that should be nought are less than this. */
const NONE = 1e-6;

/** What values can hang on, with its levels. */
export interface Term {
  kind: TermKind;
  levels: string[];
  /** Column of each level but the first, which the others are held against. */
  columns: number[];
}

/** Terms with more than one level, in a fixed order. */
export function termsOf(observations: readonly Observation[]): Term[] {
  const kinds = [...new Set(observations.flatMap(({ levels }) => Object.keys(levels) as TermKind[]))].sort((a, b) => ORDER.indexOf(a) - ORDER.indexOf(b));
  let next = 1;
  return kinds.flatMap((kind): Term[] => {
    const found = new Set(observations.map(({ levels: own }) => own[kind] ?? NO_LEVEL));
    // What all others are held against is a level that is one.
    const levels = [...found].sort((a, b) => Number(a === NO_LEVEL) - Number(b === NO_LEVEL));
    if (levels.length < 2) return [];
    const columns = levels.slice(1).map(() => next++);
    return [{ kind, levels, columns }];
  });
}

/** A column of ones, and one for each level but the first of each term. */
export function columnsOf(terms: readonly Term[], observations: readonly Observation[]): Float64Array[] {
  return [
    new Float64Array(observations.length).fill(1),
    ...terms.flatMap(({ kind, levels }) => levels.slice(1).map((level) => Float64Array.from(observations, ({ levels: own }) => Number((own[kind] ?? NO_LEVEL) === level)))),
  ];
}

/** Tells the error of a sum of used columns. */
export type ErrorOf = (contrast: readonly number[]) => Contrast;

/** A sum of columns, if the values say anything of it: it must not change along what cannot be told apart. */
export function told(weights: ReadonlyMap<number, number>, { aliased, used }: Fitted, errorOf: ErrorOf): Contrast | null {
  for (const { column, from } of aliased) {
    const along = from.reduce((sum, each) => sum - each.part * (weights.get(each.column) ?? 0), weights.get(column) ?? 0);
    if (Math.abs(along) > NONE) return null;
  }
  return errorOf(used.map((column) => weights.get(column) ?? 0));
}
