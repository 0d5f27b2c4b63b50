import type { Criterion } from '../domain/criterion.ts';
import { CONDITION_KINDS, type Condition } from '../domain/factor.ts';

/** One figure of one candidate under one condition. */
export interface Sample {
  candidateId: string;
  conditionKey: string;
  value: number;
}

/** What stands for a candidate on a criterion, and what it rests on. */
export interface Aggregate {
  value: number;
  count: number;
  /** Whether all candidates with figures were taken under these same conditions. */
  sameConditions: boolean;
}

/**
 * One value for each candidate from all of its figures: the median, or the worst, over the conditions that all candidates with figures have in
 * common, so that nobody is judged at 40 m against somebody at 1 m. Where they have none in common
 * every figure counts and `sameConditions` is false.
 * @param toOne makes one value of a list that is not empty
 */
export function aggregateBy(samples: readonly Sample[], toOne: (values: readonly number[]) => number): Map<string, Aggregate> {
  const byCandidate = new Map<string, Sample[]>();
  for (const sample of samples) byCandidate.set(sample.candidateId, [...(byCandidate.get(sample.candidateId) ?? []), sample]);
  const sets = [...byCandidate.values()].map((list) => new Set(list.map((sample) => sample.conditionKey)));
  const common = [...(sets[0] ?? [])].filter((key) => sets.every((set) => set.has(key)));
  const inCommon = new Set(common);
  const result = new Map<string, Aggregate>();
  for (const [candidateId, list] of byCandidate) {
    const used = common.length > 0 ? list.filter((sample) => inCommon.has(sample.conditionKey)) : list;
    result.set(candidateId, { value: toOne(used.map((sample) => sample.value)), count: used.length, sameConditions: common.length > 0 });
  }
  return result;
}

/** How a criterion makes one value of many: their median, or the one that is furthest from its best. */
export function oneValue(criterion: Pick<Criterion, 'aggregation' | 'best' | 'worst'>): (values: readonly number[]) => number {
  if (criterion.aggregation === 'median') return median;
  return criterion.best > criterion.worst ? (values) => Math.min(...values) : (values) => Math.max(...values);
}

/** Whether a condition counts for a criterion: at every factor that the criterion names, one of its levels. */
export function counts(criterion: Pick<Criterion, 'where'>, condition: Condition): boolean {
  return CONDITION_KINDS.every((kind) => {
    const levelIds = criterion.where[kind];
    return !levelIds || levelIds.length === 0 || levelIds.includes(condition[kind] ?? '');
  });
}

/** Middle value, or the mean of the two in the middle. @throws RangeError for an empty list */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new RangeError('An empty list has no median');
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? (sorted[middle] as number) : ((sorted[middle - 1] as number) + (sorted[middle] as number)) / 2;
}
