import { median } from 'simple-statistics';
import type { Criterion } from '../domain/criterion.ts';
import { CONDITION_KINDS, type Condition } from '../domain/factor.ts';
import { grouped } from '../domain/grouped.ts';
import { weightedMedian } from '../statistics/weightedMedian.ts';
import { desirability } from './desirability.ts';

/** One figure of one candidate under one condition. */
export interface Sample {
  candidateId: string;
  conditionKey: string;
  value: number;
  /** Against others of its condition; 1 where it is left out. */
  weight?: number;
}

/** What stands for a candidate on a criterion, and what it rests on. */
export interface Aggregate {
  value: number;
  /** Conditions that it rests on; repeats of one condition count once. */
  count: number;
  /** Share of the conditions that most candidates were recorded under, 0 to 1. */
  coverage: number;
  /** Whether this candidate was recorded under all of them. */
  sameConditions: boolean;
}

/** The values of one candidate, one for each condition. */
export type ByCondition = Map<string, number>;

/** Values by candidate and condition; of repeats under one condition the middle counts, once, by their weights. */
export function byCondition(samples: readonly Sample[]): Map<string, ByCondition> {
  const middle = (all: readonly Sample[]) =>
    weightedMedian(
      all.map(({ value }) => value),
      all.map(({ weight }) => weight ?? 1),
    );
  return new Map(
    [...grouped(samples, ({ candidateId }) => candidateId)].map(([id, own]) => [
      id,
      new Map([...grouped(own, ({ conditionKey }) => conditionKey)].map(([key, all]) => [key, middle(all)])),
    ]),
  );
}

/**
 * Conditions that candidates are compared under: those that at least half of them, and at least two, were
 * recorded under. One candidate that was recorded at little must not take the rest away from all others;
 * it is itself known only in part. Where nothing is shared, all conditions.
 */
export function sharedConditions(values: ReadonlyMap<string, ByCondition>): Set<string> {
  const counts = new Map<string, number>();
  for (const own of values.values()) for (const key of own.keys()) counts.set(key, (counts.get(key) ?? 0) + 1);
  const least = Math.min(values.size, Math.max(2, Math.ceil(values.size / 2)));
  const shared = [...counts].flatMap(([key, count]) => (count >= least ? [key] : []));
  return new Set(shared.length > 0 ? shared : counts.keys());
}

/**
 * One value for each candidate over the shared conditions. A candidate that was recorded under none of
 * them is judged by what it has, and says so.
 * @param toOne makes one value of a list that is not empty
 */
export function aggregateBy(values: ReadonlyMap<string, ByCondition>, toOne: (values: readonly number[]) => number): Map<string, Aggregate> {
  const shared = sharedConditions(values);
  const result = new Map<string, Aggregate>();
  for (const [candidateId, own] of values) {
    const within = [...own].filter(([key]) => shared.has(key)).map(([, value]) => value);
    const used = within.length > 0 ? within : [...own.values()];
    result.set(candidateId, { value: toOne(used), count: used.length, coverage: within.length / shared.size, sameConditions: within.length === shared.size });
  }
  return result;
}

/** How a criterion makes one value of many: their median, or the least desirable; of those that are equally undesirable the one furthest from the best. */
export function oneValue(criterion: Pick<Criterion, 'aggregation' | 'best' | 'worst' | 'otherWorst'>): (values: readonly number[]) => number {
  const { aggregation, best, worst, otherWorst } = criterion;
  if (aggregation === 'median') return (values) => median([...values]);
  if (otherWorst === null) return best > worst ? (values) => Math.min(...values) : (values) => Math.max(...values);
  const isWorse = (a: number, b: number) => desirability(a, criterion) - desirability(b, criterion) || Math.abs(b - best) - Math.abs(a - best);
  return (values) => values.reduce((found, value) => (isWorse(value, found) < 0 ? value : found));
}

/** Which conditions count for a criterion: those that have, at every factor that the criterion names, one of its levels. */
export function countingFor({ where }: Pick<Criterion, 'where'>): (condition: Condition) => boolean {
  const named = CONDITION_KINDS.flatMap((kind) => {
    const levelIds = where[kind] ?? [];
    return levelIds.length > 0 ? [{ kind, levelIds }] : [];
  });
  return (condition) => named.every(({ kind, levelIds }) => levelIds.includes(condition[kind] ?? ''));
}
