import { type Condition, conditionKey, type FactorKind, type Setup } from '../domain/factor.ts';

/** A take that is still to be done: one condition and the candidates recorded in it. */
export interface PlannedTake {
  condition: Condition;
  candidateIds: string[];
}

/** Key under which a planned take and the take made of it meet. */
export function takeKey(take: PlannedTake): string {
  return `${conditionKey(take.condition)}|${[...take.candidateIds].sort().join(',')}`;
}

/** Level of a take on one factor. For candidates it is all of them: another set is another rig. */
export function levelOfTake(take: PlannedTake, kind: FactorKind): string {
  return kind === 'candidate' ? take.candidateIds.join(',') : (take.condition[kind] ?? '');
}

/**
 * Setups gathered into takes: candidates of one condition share a take when they are in one group,
 * which makes words and moment the same for them.
 * @param groups ids of the candidates that one take can carry; a candidate in none of them has takes of its own
 */
export function gatherTakes(setups: readonly Setup[], groups: readonly (readonly string[])[]): PlannedTake[] {
  const groupOf = new Map(groups.flatMap((group, index) => group.map((id) => [id, `group ${index}`] as const)));
  const takes = new Map<string, PlannedTake>();
  for (const { candidate, ...condition } of setups) {
    const key = `${conditionKey(condition)}|${groupOf.get(candidate) ?? candidate}`;
    const take = takes.get(key);
    if (take) take.candidateIds.push(candidate);
    else takes.set(key, { condition, candidateIds: [candidate] });
  }
  return [...takes.values()];
}
