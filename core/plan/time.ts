import { FACTOR_KINDS } from '../domain/factor.ts';
import type { PlanDraft } from '../domain/plan.ts';
import { changesBetween, type PlannedTake } from './order.ts';

/** Expected time of each take and of the whole plan, in seconds. */
export interface PlanTime {
  /** Per take: the changes before it, then the take with its overhead. */
  takes: { changeS: number; takeS: number; startS: number }[];
  totalS: number;
}

/**
 * Time for takes in the given order. Changes at one take are done one after the other; the first take
 * is rigged once for everything.
 * @param lengthS length of a script in seconds, by script id
 */
export function planTime(ordered: readonly PlannedTake[], plan: Pick<PlanDraft, 'changeTimesS' | 'overheadS'>, lengthS: (scriptId: string) => number): PlanTime {
  let clockS = 0;
  let before: PlannedTake | null = null;
  const takes = ordered.map((take) => {
    const changed = changesBetween(before, take);
    before = take;
    const changeS = FACTOR_KINDS.reduce((sum, kind) => sum + (changed.includes(kind) ? plan.changeTimesS[kind] : 0), 0);
    const takeS = lengthS(take.condition.script) + plan.overheadS;
    const startS = clockS + changeS;
    clockS = startS + takeS;
    return { changeS, takeS, startS };
  });
  return { takes, totalS: clockS };
}
