import { clusterRobust } from '../../statistics/clusterRobust.ts';
import { type Fitted, leastSquares } from '../../statistics/leastSquares.ts';
import { studentQuantile } from '../../statistics/studentT.ts';
import { columnsOf, type ErrorOf, NO_LEVEL, type Term, told } from './model.ts';
import type { Observation, TermKind } from './observations.ts';

/** Two terms, of which is asked whether they work on each other. */
export type TogetherOf = readonly [TermKind, TermKind];

/** Whether what one term makes depends on the other. */
export interface Together {
  terms: [TermKind, TermKind];
  /** By how much the first of two levels lies further over the second at one level of the other term than at another one; null where none can be told. */
  most: { levels: [more: string, less: string]; at: [one: string, other: string]; estimate: number; low: number | null; high: number | null } | null;
  /** Part of the variance that only this explains, 0 to 1. */
  share: number;
}

/** A term's columns by level; the first has none. */
const levelsOf = ({ levels }: Term) => [...levels.keys()].filter((at) => levels[at] !== NO_LEVEL);

/**
 * Whether terms work on each other: products of their columns beside the terms by themselves, all pairs that are asked about at once. Told
 * is the largest difference of differences, its doubt shared out over all of them (Bonferroni), with errors by take.
 * @param total squares of all values about their mean
 */
export function togetherOf(terms: readonly Term[], observations: readonly Observation[], values: Float64Array, total: number, asked: readonly TogetherOf[]): Together[] {
  const plain = columnsOf(terms, observations);
  let next = plain.length;
  const pairs = asked.flatMap((kinds) => {
    const [one, other] = kinds.map((kind) => terms.find((term) => term.kind === kind));
    if (!one || !other || one === other) return [];
    // Column of each pair of levels; those with a first level have none.
    const columns = one.levels.map((_, a) => other.levels.map((__, b) => (a === 0 || b === 0 ? null : next++)));
    const made = one.columns.flatMap((first) =>
      other.columns.map((second) => (plain[first] as Float64Array).map((value, row) => value * ((plain[second] as Float64Array)[row] as number))),
    );
    return [{ one, other, columns, made }];
  });
  if (pairs.length === 0) return [];
  const fitted = leastSquares([...plain, ...pairs.flatMap(({ made }) => made)], values) as Fitted;
  const errorOf = clusterRobust(
    fitted,
    observations.map(({ takeId }) => takeId),
  );
  return pairs.map((pair) => {
    const others = pairs.flatMap((each) => (each === pair ? [] : each.made));
    const without = (leastSquares([...plain, ...others], values) as Fitted).residualSquares;
    return {
      terms: [pair.one.kind, pair.other.kind],
      most: mostOf(pair, fitted, errorOf),
      share: total <= 0 ? 0 : Math.max(0, (without - fitted.residualSquares) / total),
    };
  });
}

function mostOf({ one, other, columns }: { one: Term; other: Term; columns: (number | null)[][] }, fitted: Fitted, errorOf: ErrorOf): Together['most'] {
  const found = pairsOf(levelsOf(one)).flatMap(([a, b]) =>
    pairsOf(levelsOf(other)).flatMap(([k, l]) => {
      const weights = new Map<number, number>();
      for (const [first, second, sign] of [
        [a, k, 1],
        [a, l, -1],
        [b, k, -1],
        [b, l, 1],
      ] as const) {
        const column = columns[first]?.[second];
        if (column !== null && column !== undefined) weights.set(column, sign);
      }
      const contrast = told(weights, fitted, errorOf);
      return contrast ? [{ a, b, k, l, contrast }] : [];
    }),
  );
  const [largest] = found.sort((x, y) => Math.abs(y.contrast.estimate) - Math.abs(x.contrast.estimate));
  if (!largest) return null;
  const { a, b, k, l, contrast } = largest;
  const half = contrast.df >= 1 ? studentQuantile(1 - 0.025 / found.length, contrast.df) * contrast.standardError : null;
  const estimate = Math.abs(contrast.estimate);
  const at = [other.levels[k], other.levels[l]] as [string, string];
  return {
    levels: [one.levels[a] as string, one.levels[b] as string],
    at: contrast.estimate < 0 ? [at[1], at[0]] : at,
    estimate,
    low: half === null ? null : estimate - half,
    high: half === null ? null : estimate + half,
  };
}

const pairsOf = (levels: readonly number[]) => levels.flatMap((a, at) => levels.slice(at + 1).map((b) => [a, b] as const));
