import { filled } from '../../audio/filled.ts';
import { FACTOR_KINDS, type FactorKind } from '../../domain/factor.ts';
import type { PlanDraft } from '../../domain/plan.ts';
import { levelOfTake, type PlannedTake } from '../gather.ts';

export type ChangeCosts = Pick<PlanDraft, 'changeTimesS' | 'changeExceptions'>;

/**
 * Whether two takes are rigged alike: one records no candidate that the other does not. Who is left out
 * of a take stays on the talker.
 */
function sameRig(fromIds: string, toIds: string): boolean {
  const [few, many] = [fromIds.split(','), toIds.split(',')].sort((a, b) => a.length - b.length) as [string[], string[]];
  return few.every((id) => many.includes(id));
}

/** Seconds to change one factor from one level to another; an exception goes before the factor's own time. */
export function changeS(costs: ChangeCosts, kind: FactorKind, fromId: string, toId: string): number {
  if (fromId === toId || (kind === 'candidate' && sameRig(fromId, toId))) return 0;
  const exception = costs.changeExceptions.find((each) => each.kind === kind && each.fromId === fromId && each.toId === toId);
  return exception?.seconds ?? costs.changeTimesS[kind];
}

/** Factors whose level changes from one take to the next; at the first take all that it has a level of. */
export function changesBetween(before: PlannedTake | null, after: PlannedTake): FactorKind[] {
  return FACTOR_KINDS.filter((kind) => {
    const to = levelOfTake(after, kind);
    if (before === null) return to !== '';
    const from = levelOfTake(before, kind);
    return from !== to && !(kind === 'candidate' && sameRig(from, to));
  });
}

/** Takes as numbers, for the search of an order: a level index for each take and factor, and a cost for each pair of levels. */
export interface CostTable {
  kinds: FactorKind[];
  /** Level index of take `t` on the factor `k` at `t * kinds.length + k`. */
  levels: Int32Array;
  /** Number of levels of each factor that occur. */
  levelCounts: number[];
  /** Per factor: seconds from level `a` to level `b` at `a * levelCounts[k] + b`. */
  seconds: Float64Array[];
  size: number;
}

export function costTable(takes: readonly PlannedTake[], costs: ChangeCosts): CostTable {
  const kinds = FACTOR_KINDS.filter((kind) => new Set(takes.map((take) => levelOfTake(take, kind))).size > 1);
  const levels = new Int32Array(takes.length * kinds.length);
  const ids = kinds.map((kind, k) => {
    const places = new Map<string, number>();
    takes.forEach((take, t) => {
      const id = levelOfTake(take, kind);
      const place = places.get(id) ?? places.size;
      places.set(id, place);
      levels[t * kinds.length + k] = place;
    });
    return [...places.keys()];
  });
  const seconds = kinds.map((kind, k) => {
    const own = ids[k] as string[];
    return filled(own.length ** 2, (at) => changeS(costs, kind, own[Math.floor(at / own.length)] as string, own[at % own.length] as string));
  });
  return { kinds, levels, levelCounts: ids.map((own) => own.length), seconds, size: takes.length };
}

/** Seconds to get from take `from` to take `to`. */
export function pairCostS(table: CostTable, from: number, to: number): number {
  const { kinds, levels, levelCounts, seconds } = table;
  const many = kinds.length;
  let sum = 0;
  for (let k = 0; k < many; k++) {
    const count = levelCounts[k] as number;
    sum += (seconds[k] as Float64Array)[(levels[from * many + k] as number) * count + (levels[to * many + k] as number)] as number;
  }
  return sum;
}

/** Seconds of all changes of takes done in this order, without rigging for the first. */
export function pathCostS(table: CostTable, path: ArrayLike<number>): number {
  let sum = 0;
  for (let at = 1; at < path.length; at++) sum += pairCostS(table, path[at - 1] as number, path[at] as number);
  return sum;
}
