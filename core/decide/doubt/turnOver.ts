import { type Criterion, weightShares } from '../../domain/criterion.ts';
import type { VerdictCell, VerdictRow } from '../verdict.ts';

/** A change of one thing that puts another candidate first. */
export type TurnOver =
  /** Share of the whole as it is, and as it would have to be, the others among themselves as they are. */
  | { kind: 'weight'; criterionId: string; candidateId: string; from: number; to: number }
  /** Value of the first one as it is, and as it would have to be. */
  | { kind: 'value'; criterionId: string; candidateId: string; from: number; to: number }
  /** Who would be first without this limit. */
  | { kind: 'limit'; criterionId: string; candidateId: string; value: number };

export interface TurnOvers {
  /** The smallest of each kind first; empty where nothing of the kind does it. */
  all: TurnOver[];
  /** What the first is ahead of each other one by, as points of the score, by criterion in their order; null without a first. */
  ahead: { candidateId: string; byCriterion: number[] }[] | null;
}

/** How good a cell is for the place: what is not known counts as worst. */
const sureGood = (cell: VerdictCell | undefined): number => (cell?.desirability ?? 0) * (cell?.coverage ?? 0);
const isUntested = (row: VerdictRow) => row.untested.length > 0;

/**
 * What would turn a ranking over. The places are those of a weighted mean of what is sure, so that the weight, and the value, at which
 * another candidate draws level follow in closed form.
 */
export function turnOvers(criteria: readonly Criterion[], rows: readonly VerdictRow[]): TurnOvers {
  const first = rows.find((row) => row.rank === 1);
  if (!first) return { all: [], ahead: null };
  const shares = weightShares(criteria.map(({ weight }) => weight));
  const gapsTo = (row: VerdictRow) => criteria.map((_, index) => sureGood(first.cells[index]) - sureGood(row.cells[index]));
  const rivals = rows.filter((row) => row !== first && row.rank !== null && isUntested(row) === isUntested(first));
  const weights = rivals.flatMap((row) => criteria.flatMap((criterion, index) => weightTurn(criterion, row, index, shares, gapsTo(row)) ?? []));
  const values = rivals.flatMap((row) => criteria.flatMap((criterion, index) => valueTurn(criterion, first, row, index, shares, gapsTo(row)) ?? []));
  const nearest = <Turn extends { from: number; to: number }>(turns: readonly Turn[], sizeOf: (turn: Turn) => number) => [...turns].sort((a, b) => sizeOf(a) - sizeOf(b))[0];
  const goodOf = ({ criterionId, from, to }: { criterionId: string; from: number; to: number }) => {
    const criterion = criteria.find(({ id }) => id === criterionId) as Criterion;
    return Math.abs((to - from) / (criterion.best - criterion.worst));
  };
  const weight = nearest(weights, ({ from, to }) => Math.abs(to - from));
  const value = nearest(values, goodOf);
  return {
    all: [...(weight ? [weight] : []), ...(value ? [value] : []), ...limitTurns(criteria, rows, first)],
    ahead: rivals.map((row) => ({ candidateId: row.candidate.id, byCriterion: gapsTo(row).map((gap, index) => 100 * gap * (shares[index] as number)) })),
  };
}

/** The share of one criterion at which a rival draws level, the others keeping their proportions; null where no share does it. */
function weightTurn({ id }: Criterion, rival: VerdictRow, index: number, shares: readonly number[], gaps: readonly number[]): Extract<TurnOver, { kind: 'weight' }> | null {
  const from = shares[index] as number;
  if (from >= 1) return null;
  // What the others make of it, were all of the weight theirs.
  const others = gaps.reduce((sum, gap, at) => (at === index ? sum : sum + gap * (shares[at] as number)), 0) / (1 - from);
  const own = gaps[index] as number;
  const to = others / (others - own);
  if (!Number.isFinite(to) || to < 0 || to > 1) return null;
  return { kind: 'weight', criterionId: id, candidateId: rival.candidate.id, from, to };
}

/** The value of the first one at which a rival draws level; null where even the worst does not do it. */
function valueTurn(
  { id, best, worst, otherWorst }: Criterion,
  first: VerdictRow,
  rival: VerdictRow,
  index: number,
  shares: readonly number[],
  gaps: readonly number[],
): Extract<TurnOver, { kind: 'value' }> | null {
  const cell = first.cells[index];
  if (!cell || cell.value === null || cell.desirability === null || cell.coverage === 0 || shares[index] === 0) return null;
  const ahead = gaps.reduce((sum, gap, at) => sum + gap * (shares[at] as number), 0);
  const to = cell.desirability - ahead / ((shares[index] as number) * cell.coverage);
  if (to < 0) return null;
  // On the side of the best on which it lies now.
  const end = otherWorst !== null && (cell.value - best) * (worst - best) < 0 ? otherWorst : worst;
  return { kind: 'value', criterionId: id, candidateId: rival.candidate.id, from: cell.value, to: end + to * (best - end) };
}

/** Limits without which somebody who is ruled out by them alone would be first. */
function limitTurns(criteria: readonly Criterion[], rows: readonly VerdictRow[], first: VerdictRow): TurnOver[] {
  return rows.flatMap((row): TurnOver[] => {
    const [only, more] = row.ruledOut;
    if (!only || more || isUntested(row) || (row.lowest ?? 0) <= (first.lowest ?? 0) || !criteria.some(({ id }) => id === only.criterionId)) return [];
    return [{ kind: 'limit', criterionId: only.criterionId, candidateId: row.candidate.id, value: only.value }];
  });
}
