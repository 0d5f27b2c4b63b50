import { type Condition, conditionKey, type FactorKind, type Setup } from '../domain/factor.ts';

/** A take that is still to be done: one condition and the candidates recorded in it. */
export interface PlannedTake {
  condition: Condition;
  candidateIds: string[];
}

/**
 * Setups gathered into takes. Together: all candidates of one condition share a take, which makes
 * words and moment the same for them. Apart: a take per setup.
 */
export function gatherTakes(setups: readonly Setup[], together: boolean): PlannedTake[] {
  const takes = new Map<string, PlannedTake>();
  for (const { candidate, ...condition } of setups) {
    const key = together ? conditionKey(condition) : `${conditionKey(condition)}|${candidate}`;
    const take = takes.get(key);
    if (take) take.candidateIds.push(candidate);
    else takes.set(key, { condition, candidateIds: [candidate] });
  }
  return [...takes.values()];
}

/** What costs most to change comes first: station, then rig, then windscreen, distance and script. */
const ORDER: readonly FactorKind[] = ['station', 'candidate', 'windscreen', 'distance', 'script'];

function levelOf(take: PlannedTake, kind: FactorKind): string {
  return kind === 'candidate' ? take.candidateIds.join(',') : take.condition[kind];
}

/**
 * Takes in an order that changes the station least, then the rig, then the rest: every level of the
 * dearer factor is finished before it changes, and each group starts with the level at which the
 * group before it ended, where it can.
 */
export function orderTakes(takes: readonly PlannedTake[]): PlannedTake[] {
  return nest(takes, 0, null);
}

function nest(takes: readonly PlannedTake[], depth: number, before: PlannedTake | null): PlannedTake[] {
  const kind = ORDER[depth];
  if (kind === undefined || takes.length <= 1) return [...takes];
  const groups = new Map<string, PlannedTake[]>();
  for (const take of takes) {
    const level = levelOf(take, kind);
    const group = groups.get(level);
    if (group) group.push(take);
    else groups.set(level, [take]);
  }
  const levels = [...groups.keys()];
  const standing = before ? levelOf(before, kind) : null;
  if (standing !== null && groups.has(standing)) {
    levels.splice(levels.indexOf(standing), 1);
    levels.unshift(standing);
  }
  const ordered: PlannedTake[] = [];
  let last = before;
  for (const level of levels) {
    const group = nest(groups.get(level) ?? [], depth + 1, last);
    ordered.push(...group);
    last = group.at(-1) ?? last;
  }
  return ordered;
}

/** Factors whose level changes from one take to the next; all of them at the first take. */
export function changesBetween(before: PlannedTake | null, after: PlannedTake): FactorKind[] {
  return ORDER.filter((kind) => before === null || levelOf(before, kind) !== levelOf(after, kind));
}
