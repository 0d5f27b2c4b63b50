import { type Criterion, weightShares } from '../domain/criterion.ts';
import type { Aggregate } from './aggregate.ts';
import { desirability } from './desirability.ts';

/** A candidate with what it costs. */
export interface JudgedCandidate {
  id: string;
  name: string;
  price: number | null;
  currency: string | null;
}

/** One candidate on one criterion. */
export interface VerdictCell {
  criterionId: string;
  value: number | null;
  count: number;
  sameConditions: boolean;
  /** 0 to 1; null when there is no value. */
  desirability: number | null;
}

export interface RuledOut {
  criterionId: string;
  reason: string;
}

export interface VerdictRow {
  candidate: JudgedCandidate;
  cells: VerdictCell[];
  /** 0 to 100 over the criteria that have a value; null when none has. */
  score: number | null;
  /** Score if everything missing turned out worst, and best. */
  lowest: number | null;
  highest: number | null;
  /** Share of the weight that has a value, 0 to 1. */
  known: number;
  /** Criteria without a value. */
  missing: string[];
  ruledOut: RuledOut[];
  /** 1 for the best of those not ruled out; null for ruled out or unscored. */
  rank: number | null;
  /** Candidates that cost no more and score no less, one of the two strictly. */
  beatenBy: string[];
}

/**
 * Ranking by weighted desirability. A missing value is named and left out of the score; it never
 * counts as zero. A dealbreaker rules a candidate out and says why. Equal scores share a rank.
 * @param values by criterion id, then candidate id
 */
export function judge(criteria: readonly Criterion[], candidates: readonly JudgedCandidate[], values: ReadonlyMap<string, ReadonlyMap<string, Aggregate>>): VerdictRow[] {
  const shares = weightShares(criteria.map((criterion) => criterion.weight));
  const rows = candidates.map((candidate) => rowOf(candidate, criteria, shares, values));
  const ranked = rows.filter((row) => row.score !== null && row.ruledOut.length === 0);
  for (const row of rows) {
    if (ranked.includes(row)) row.rank = 1 + ranked.filter((other) => (other.score ?? 0) > (row.score ?? 0) + 1e-9).length;
    row.beatenBy = ranked.filter((other) => beats(other, row)).map((other) => other.candidate.id);
  }
  return rows.sort((a, b) => (a.rank ?? 999) - (b.rank ?? 999) || (b.score ?? -1) - (a.score ?? -1));
}

function rowOf(candidate: JudgedCandidate, criteria: readonly Criterion[], shares: readonly number[], values: ReadonlyMap<string, ReadonlyMap<string, Aggregate>>): VerdictRow {
  let sum = 0;
  let known = 0;
  const ruledOut: RuledOut[] = [];
  const missing: string[] = [];
  const cells = criteria.map((criterion, index): VerdictCell => {
    const share = shares[index] ?? 0;
    const aggregate = values.get(criterion.id)?.get(candidate.id);
    if (!aggregate) {
      missing.push(criterion.id);
      return { criterionId: criterion.id, value: null, count: 0, sameConditions: true, desirability: null };
    }
    const good = desirability(aggregate.value, criterion.best, criterion.worst);
    sum += share * good;
    known += share;
    const limit = criterion.dealbreaker;
    if (limit && (limit.side === 'below' ? aggregate.value < limit.limit : aggregate.value > limit.limit)) {
      ruledOut.push({ criterionId: criterion.id, reason: `${criterion.name} is ${limit.side} its limit` });
    }
    return { criterionId: criterion.id, ...aggregate, desirability: good };
  });
  return {
    candidate,
    cells,
    score: known > 0 ? (100 * sum) / known : null,
    lowest: known > 0 ? 100 * sum : null,
    highest: known > 0 ? 100 * (sum + 1 - known) : null,
    known,
    missing,
    ruledOut,
    rank: null,
    beatenBy: [],
  };
}

function beats(other: VerdictRow, row: VerdictRow): boolean {
  if (other === row || other.score === null || row.score === null) return false;
  const [cheap, dear] = [other.candidate, row.candidate];
  if (cheap.price === null || dear.price === null || cheap.currency !== dear.currency) return false;
  return cheap.price <= dear.price && other.score >= row.score && (cheap.price < dear.price || other.score > row.score);
}
