import type { YearOfBatteries } from '../chain/burden.ts';
import { type Criterion, weightShares } from '../domain/criterion.ts';
import { type Aggregate, aggregateBy, type ByCondition, oneValue } from './aggregate.ts';
import { desirability } from './desirability.ts';
import type { LikeBy } from './like/likeModel.ts';

/** A candidate with what it costs. */
export interface JudgedCandidate {
  id: string;
  name: string;
  /** Of the whole chain, with the batteries of a year where these are asked for. */
  price: number | null;
  currency: string | null;
  /** What of it are batteries, and of which links nobody knows; left out where they are not asked for. */
  batteries?: YearOfBatteries;
}

/** One candidate on one criterion. */
export interface VerdictCell {
  criterionId: string;
  value: number | null;
  /** Conditions that it rests on. */
  count: number;
  /** How much was recorded of it against the candidate of whom most was, 0 to 1. */
  coverage: number;
  sameConditions: boolean;
  /** Conditions whose value is reckoned from what was recorded, and by what. */
  reckoned: number;
  reckonedBy: LikeBy | null;
  /** 0 to 1; null when there is no value. */
  desirability: number | null;
}

export interface RuledOut {
  criterionId: string;
  reason: string;
  value: number;
  /** Condition at which the limit was broken; null for inspected marks. */
  conditionKey: string | null;
}

export interface VerdictRow {
  candidate: JudgedCandidate;
  cells: VerdictCell[];
  /** 0 to 100 over the criteria that have a value; null when none has. */
  score: number | null;
  /** Score if everything missing turned out worst, and best. Candidates are ranked by the lowest: by what is sure. */
  lowest: number | null;
  highest: number | null;
  /** Share of the weight that is known, 0 to 1; a criterion known under some of the conditions counts in part. */
  known: number;
  /** Criteria without a value. */
  missing: string[];
  /** Of these, the ones that it was recorded for, but under no condition that ties it to the others. */
  unlike: string[];
  /** Dealbreakers that were not tested at all, or not under all conditions. */
  untested: string[];
  ruledOut: RuledOut[];
  /** 1 for the best of those not ruled out; null for ruled out or unscored. */
  rank: number | null;
  /** Candidates that cost no more and score no less, one of the two strictly. */
  beatenBy: string[];
}

/** Values by criterion, candidate and condition; marks of inspected criteria have one nameless condition. */
export type Judged = ReadonlyMap<string, ReadonlyMap<string, ByCondition>>;

/** Key of a mark that holds at any condition. */
export const ANYWHERE = '';

/**
 * Ranking by weighted desirability. A missing value is named and left out of the score; it never counts
 * as zero. Candidates are ranked by the score that they have even if all that is missing turned out worst,
 * so that one of whom little is known does not lead; and one whose dealbreaker was not tested never stands
 * above one that is fully known. A dealbreaker looks at everything that a candidate was recorded at.
 * Equal ones share a rank.
 */
export function judge(criteria: readonly Criterion[], candidates: readonly JudgedCandidate[], values: Judged): VerdictRow[] {
  const shares = weightShares(criteria.map((criterion) => criterion.weight));
  const aggregates = new Map(criteria.map((criterion) => [criterion.id, aggregateBy(values.get(criterion.id) ?? new Map(), oneValue(criterion))]));
  const rows = candidates.map((candidate) => rowOf(candidate, criteria, shares, aggregates, values));
  const ranked = rows.filter((row) => row.score !== null && row.ruledOut.length === 0);
  const before = (a: VerdictRow, b: VerdictRow) => classOf(a) < classOf(b) || (classOf(a) === classOf(b) && (a.lowest ?? 0) > (b.lowest ?? 0) + 1e-9);
  for (const row of rows) {
    if (ranked.includes(row)) row.rank = 1 + ranked.filter((other) => before(other, row)).length;
    row.beatenBy = ranked.filter((other) => beats(other, row)).map((other) => other.candidate.id);
  }
  return rows.sort((a, b) => (a.rank ?? 999) - (b.rank ?? 999) || (b.score ?? -1) - (a.score ?? -1));
}

/** Candidates with an untested dealbreaker come behind all others. */
const classOf = (row: VerdictRow) => (row.untested.length > 0 ? 1 : 0);

function rowOf(
  candidate: JudgedCandidate,
  criteria: readonly Criterion[],
  shares: readonly number[],
  aggregates: ReadonlyMap<string, ReadonlyMap<string, Aggregate>>,
  values: Judged,
): VerdictRow {
  let sum = 0;
  let sure = 0;
  let weighed = 0;
  let known = 0;
  const ruledOut: RuledOut[] = [];
  const missing: string[] = [];
  const unlike: string[] = [];
  const untested: string[] = [];
  const cells = criteria.map((criterion, index): VerdictCell => {
    const share = shares[index] ?? 0;
    const own = values.get(criterion.id)?.get(candidate.id);
    const broken = brokenLimit(criterion, own ?? new Map());
    if (broken) ruledOut.push(broken);
    const aggregate = aggregates.get(criterion.id)?.get(candidate.id);
    if (!aggregate) {
      missing.push(criterion.id);
      if (own && own.size > 0) unlike.push(criterion.id);
      if (criterion.dealbreaker && !broken) untested.push(criterion.id);
      return { criterionId: criterion.id, value: null, count: 0, coverage: 0, sameConditions: true, reckoned: 0, reckonedBy: null, desirability: null };
    }
    const good = desirability(aggregate.value, criterion);
    sum += share * good;
    weighed += share;
    sure += share * good * aggregate.coverage;
    known += share * aggregate.coverage;
    if (!broken && criterion.dealbreaker && !aggregate.sameConditions) untested.push(criterion.id);
    return { criterionId: criterion.id, ...aggregate, desirability: good };
  });
  return {
    candidate,
    cells,
    score: weighed > 0 ? (100 * sum) / weighed : null,
    lowest: weighed > 0 ? 100 * sure : null,
    highest: weighed > 0 ? 100 * (sure + 1 - known) : null,
    known,
    missing,
    unlike,
    untested,
    ruledOut,
    rank: null,
    beatenBy: [],
  };
}

/** Where a candidate breaks the limit of a criterion furthest; null where it keeps it everywhere. */
function brokenLimit(criterion: Criterion, own: ByCondition): RuledOut | null {
  const { dealbreaker } = criterion;
  if (!dealbreaker) return null;
  const over = (value: number) => (dealbreaker.side === 'below' ? dealbreaker.limit - value : value - dealbreaker.limit);
  let worst: [string, number] | null = null;
  for (const entry of own) if (over(entry[1]) > 0 && (worst === null || over(entry[1]) > over(worst[1]))) worst = entry;
  if (!worst) return null;
  return { criterionId: criterion.id, reason: `${criterion.name} is ${dealbreaker.side} its limit`, value: worst[1], conditionKey: worst[0] === ANYWHERE ? null : worst[0] };
}

function beats(other: VerdictRow, row: VerdictRow): boolean {
  if (other === row || other.score === null || row.score === null) return false;
  const [cheap, dear] = [other.candidate, row.candidate];
  if (cheap.price === null || dear.price === null || cheap.currency !== dear.currency) return false;
  return cheap.price <= dear.price && other.score >= row.score && (cheap.price < dear.price || other.score > row.score);
}
