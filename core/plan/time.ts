import type { FactorKind } from '../domain/factor.ts';
import type { PlanDraft } from '../domain/plan.ts';
import { levelOfTake, type PlannedTake } from './gather.ts';
import { changeS, changesBetween } from './order/changeCost.ts';

/** Expected time of each take and of the whole plan, in seconds. */
export interface PlanTime {
  /** Per take: the changes before it, then the take with its overhead. */
  takes: { changed: FactorKind[]; changeS: number; takeS: number; startS: number }[];
  totalS: number;
}

/**
 * Time for takes in the given order. Changes at one take are done one after the other; the first take
 * is rigged once for everything.
 * @param lengthS length of a script in seconds, by script id
 */
export function planTime(
  ordered: readonly PlannedTake[],
  plan: Pick<PlanDraft, 'changeTimesS' | 'changeExceptions' | 'overheadS'>,
  lengthS: (scriptId: string) => number,
): PlanTime {
  let clockS = 0;
  let before: PlannedTake | null = null;
  const takes = ordered.map((take) => {
    const last = before;
    const changed = changesBetween(last, take);
    before = take;
    const changeTimeS = changed.reduce((sum, kind) => sum + changeS(plan, kind, last ? levelOfTake(last, kind) : '', levelOfTake(take, kind)), 0);
    const takeS = lengthS(take.condition.script) + plan.overheadS;
    const startS = clockS + changeTimeS;
    clockS = startS + takeS;
    return { changed, changeS: changeTimeS, takeS, startS };
  });
  return { takes, totalS: clockS };
}
