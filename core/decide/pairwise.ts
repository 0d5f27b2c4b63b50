import type { CriterionComparison } from '../domain/trial.ts';

/** Weights from comparisons two by two, and how far these agree with each other. */
export interface PairwiseWeights {
  /** Shares of the whole, in the order of the criteria; they add up to 1. Null while the comparisons do not connect all criteria. */
  shares: number[] | null;
  /** 0 when every comparison follows from the others; over 0.1 some contradict each other. Null where nothing could contradict. */
  consistencyRatio: number | null;
  /** Pairs that were not compared. */
  open: [string, string][];
  /** Criteria that the comparisons connect, a list each; one list when all are. */
  groups: string[][];
  /** The comparison that fits the weights least; null when all fit. */
  oddest: [string, string] | null;
}

/** Ratio above which comparisons are too contradictory to weigh by (Saaty, 1980). */
export const CONSISTENT_UP_TO = 0.1;

/** Mean consistency index of random comparisons of n criteria, n = 1, 2, 3... (Saaty, 1980). */
const RANDOM_INDEX = [0, 0, 0.58, 0.9, 1.12, 1.24, 1.32, 1.41, 1.45, 1.49, 1.51, 1.48, 1.56, 1.57, 1.59];
const STEPS = 2000;
const SETTLED = 1e-13;

/**
 * Weights as the principal eigenvector of the matrix of comparisons, by power iteration; consistency
 * as (lambda - n) / (n - 1) over that of random comparisons (Saaty, 1980). A pair that was not compared
 * says nothing: its place is 0, and each row counts itself once for every pair that it lacks (Harker,
 * Mathematical Modelling 9, 1987); random comparisons with as many gaps agree so much better (Ágoston and
 * Csató, Omega 108, 2022).
 * @example pairwiseWeights(['a', 'b'], [{ firstId: 'a', secondId: 'b', ratio: 3 }]).shares // [0.75, 0.25]
 */
export function pairwiseWeights(ids: readonly string[], comparisons: readonly CriterionComparison[]): PairwiseWeights {
  const n = ids.length;
  const ratio = (a: string, b: string): number | null => {
    const there = comparisons.find((each) => each.firstId === a && each.secondId === b);
    if (there) return there.ratio;
    const back = comparisons.find((each) => each.firstId === b && each.secondId === a);
    return back ? 1 / back.ratio : null;
  };
  const open = ids.flatMap((a, index) =>
    ids
      .slice(index + 1)
      .filter((b) => ratio(a, b) === null)
      .map((b): [string, string] => [a, b]),
  );
  const groups = connected(ids, (a, b) => ratio(a, b) !== null);
  if (groups.length > 1) return { shares: null, consistencyRatio: null, open, groups, oddest: null };
  const matrix = ids.map((a) => {
    const row = ids.map((b) => (a === b ? 1 : (ratio(a, b) ?? 0)));
    row[ids.indexOf(a)] = 1 + row.filter((value) => value === 0).length;
    return row;
  });
  let shares = ids.map(() => 1 / n);
  let lambda = n;
  for (let step = 0; step < STEPS; step++) {
    const next = matrix.map((row) => row.reduce((sum, value, at) => sum + value * (shares[at] as number), 0));
    lambda = next.reduce((sum, value) => sum + value, 0);
    const settled = next.map((value) => value / lambda);
    const moved = Math.max(...settled.map((share, at) => Math.abs(share - (shares[at] as number))));
    shares = settled;
    if (moved < SETTLED) break;
  }
  const random = randomIndex(n, open.length);
  const consistencyRatio = random > 0 ? Math.max(0, (lambda - n) / (n - 1) / random) : null;
  return { shares, consistencyRatio, open, groups, oddest: (consistencyRatio ?? 0) > 1e-6 ? oddestPair(ids, matrix, shares) : null };
}

/** Of a full set of comparisons Saaty's; with gaps so much less, down to none where every comparison is needed once. */
function randomIndex(n: number, gaps: number): number {
  const full = RANDOM_INDEX[n - 1] ?? (RANDOM_INDEX.at(-1) as number);
  return n < 3 ? 0 : full * (1 - (2 * gaps) / ((n - 1) * (n - 2)));
}

function connected(ids: readonly string[], compared: (a: string, b: string) => boolean): string[][] {
  const groups: string[][] = [];
  for (const id of ids) {
    const touching = groups.filter((group) => group.some((other) => compared(id, other)));
    groups.push([...touching.flat(), id]);
    for (const group of touching) groups.splice(groups.indexOf(group), 1);
  }
  return groups;
}

function oddestPair(ids: readonly string[], matrix: readonly number[][], shares: readonly number[]): [string, string] {
  let oddest: [string, string] = [ids[0] as string, ids[1] as string];
  let most = -1;
  ids.forEach((a, i) => {
    ids.forEach((b, j) => {
      if (matrix[i]?.[j] === 0) return;
      const off = Math.abs(Math.log(((matrix[i]?.[j] as number) * (shares[j] as number)) / (shares[i] as number)));
      if (j > i && off > most) {
        most = off;
        oddest = [a, b];
      }
    });
  });
  return oddest;
}

/**
 * Shares as whole weights that add up to 100: rounded down, the rest to the largest remainders.
 * @example wholeWeights([1 / 3, 1 / 3, 1 / 3]) // [34, 33, 33]
 */
export function wholeWeights(shares: readonly number[]): number[] {
  const whole = shares.map((share) => Math.floor(share * 100 + 1e-9));
  const left = 100 - whole.reduce((sum, value) => sum + value, 0);
  const byRemainder = shares.map((share, at) => ({ at, rest: share * 100 - (whole[at] as number) })).sort((a, b) => b.rest - a.rest || a.at - b.at);
  for (const { at } of byRemainder.slice(0, left)) whole[at] = (whole[at] as number) + 1;
  return whole;
}
