import { mean, median } from 'simple-statistics';
import type { Criterion } from '../domain/criterion.ts';
import { CONDITION_KINDS, type Condition } from '../domain/factor.ts';
import { grouped } from '../domain/grouped.ts';
import { weightedMedian } from '../statistics/weightedMedian.ts';
import { desirability } from './desirability.ts';
import { groundOf } from './like/ground.ts';
import type { LikeBy, LikeModel } from './like/likeModel.ts';

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
  /** How much was recorded of it against the candidate of whom most was, 0 to 1. */
  coverage: number;
  /** Whether it was recorded under all conditions that candidates are compared under. */
  sameConditions: boolean;
  /** Conditions under which it was not, and its value is reckoned. */
  reckoned: number;
  /** By what: how each condition lies to the others, or each factor by itself. */
  reckonedBy: LikeBy | null;
}

/** The values of one candidate, one for each condition. */
export type ByCondition = Map<string, number>;

/**
 * Values by candidate and condition; repeats under one condition count once, by their weights: as their mean where the mean of all
 * conditions counts, else as the middle one.
 */
export function byCondition(samples: readonly Sample[], { aggregation }: Pick<Criterion, 'aggregation'>): Map<string, ByCondition> {
  const together = (all: readonly Sample[]) => {
    const values = all.map(({ value }) => value);
    const weights = all.map(({ weight }) => weight ?? 1);
    return aggregation === 'mean' ? weightedMean(values, weights) : weightedMedian(values, weights);
  };
  return new Map(
    [...grouped(samples, ({ candidateId }) => candidateId)].map(([id, own]) => [
      id,
      new Map([...grouped(own, ({ conditionKey }) => conditionKey)].map(([key, all]) => [key, together(all)])),
    ]),
  );
}

function weightedMean(values: readonly number[], weights: readonly number[]): number {
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  return values.reduce((sum, value, at) => sum + value * (weights[at] as number), 0) / whole;
}

/**
 * One value for each candidate, of the conditions that all are compared under; what somebody has not under one of them is reckoned from
 * what the others have. Who cannot be held against the others has none.
 * @param toOne makes one value of a list that is not empty
 */
export function aggregateBy(values: ReadonlyMap<string, ByCondition>, toOne: (values: readonly number[]) => number): Map<string, Aggregate> {
  const all = [...values.values()];
  const { keys, judged, model, cells, cellAt, known, coverage, complete } = groundOf(all.map((own) => [...own.keys()]));
  const own = Float64Array.from(cells, ({ candidate, condition }) => all[candidate]?.get(keys[condition] as string) as number);
  model?.fit(own, new Float64Array(cells.length).fill(1));
  const result = new Map<string, Aggregate>();
  for (const [candidate, candidateId] of [...values.keys()].entries()) {
    if (!known[candidate]) continue;
    const under = (condition: number) => own[cellAt[candidate]?.[condition] as number] ?? (model as LikeModel).at(candidate, condition);
    const recorded = judged.filter((condition) => (cellAt[candidate]?.[condition] as number) >= 0).length;
    result.set(candidateId, {
      value: toOne(judged.map(under)),
      count: model ? (all[candidate] as ByCondition).size : recorded,
      coverage: coverage[candidate] as number,
      sameConditions: complete[candidate] as boolean,
      reckoned: judged.length - recorded,
      reckonedBy: judged.length > recorded && model ? model.by : null,
    });
  }
  return result;
}

/** How a criterion makes one value of many: their mean, their median, or the least desirable; of those that are equally undesirable the one furthest from the best. */
export function oneValue(criterion: Pick<Criterion, 'aggregation' | 'best' | 'worst' | 'otherWorst'>): (values: readonly number[]) => number {
  const { aggregation, best, worst, otherWorst } = criterion;
  if (aggregation === 'mean') return (values) => mean([...values]);
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
