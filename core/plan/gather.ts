import { CONDITION_KINDS, conditionKey, type FactorKind, type Setup, type SetupLevels, type SharedCondition, type SimultaneousKind } from '../domain/factor.ts';
import { isSwitched } from '../domain/switches.ts';
import { firstSetups } from '../domain/take.ts';

/** A setup of a take that is still to be done. */
export interface PlannedSetup {
  candidateId: string;
  levels: SetupLevels;
  /** The setup that it followed when something was switched while the take ran; none in a plan. */
  fromId?: string;
}

/** A take that is still to be done: what is shared, and the setups recorded in it. */
export interface PlannedTake {
  condition: SharedCondition;
  setups: PlannedSetup[];
}

/** Name of a setup within its take: the candidate, and its own levels where something differs. */
export function setupName({ candidateId, levels }: PlannedSetup): string {
  if (Object.keys(levels).length === 0) return candidateId;
  const own = CONDITION_KINDS.flatMap((kind) => levels[kind as keyof SetupLevels] ?? []).filter((levelId) => !isSwitched(levelId));
  return [candidateId, ...own].join('@');
}

/** Key under which a planned take and the take made of it meet. */
export function takeKey(take: PlannedTake): string {
  return `${conditionKey(take.condition)}|${firstSetups(take).map(setupName).sort().join(',')}`;
}

/** Level of a take on one factor. For candidates it is all of its setups: another set is another rig. */
export function levelOfTake(take: PlannedTake, kind: FactorKind): string {
  return kind === 'candidate' ? take.setups.map(setupName).join(',') : (take.condition[kind] ?? '');
}

/**
 * Setups gathered into takes: candidates of one condition share a take when they are in one group,
 * which makes words and moment the same for them; so do levels of what is recorded at one moment.
 * @param groups ids of the candidates that one take can carry; a candidate in none of them has takes of its own
 * @param atOnce factors whose levels are recorded at one moment, with gear for each
 */
export function gatherTakes(setups: readonly Setup[], groups: readonly (readonly string[])[], atOnce: readonly SimultaneousKind[] = []): PlannedTake[] {
  const groupOf = new Map(groups.flatMap((group, index) => group.map((id) => [id, `group ${index}`] as const)));
  const takes = new Map<string, PlannedTake>();
  for (const { candidate, ...whole } of setups) {
    const condition: SharedCondition = { ...whole };
    const levels: SetupLevels = {};
    for (const kind of atOnce) {
      if (condition[kind] === undefined) continue;
      levels[kind] = condition[kind];
      delete condition[kind];
    }
    const key = `${conditionKey(condition)}|${groupOf.get(candidate) ?? candidate}`;
    const take = takes.get(key);
    if (take) take.setups.push({ candidateId: candidate, levels });
    else takes.set(key, { condition, setups: [{ candidateId: candidate, levels }] });
  }
  return [...takes.values()].map(withoutLoneLevels);
}

/** A level that all setups of a take have differs from nothing: it belongs to what they share. */
function withoutLoneLevels(take: PlannedTake): PlannedTake {
  const condition: SharedCondition = { ...take.condition };
  const setups = take.setups.map(({ candidateId, levels }) => ({ candidateId, levels: { ...levels } }));
  for (const kind of Object.keys(setups[0]?.levels ?? {}) as (keyof SetupLevels)[]) {
    const [first] = setups;
    if (!setups.every((setup) => setup.levels[kind] === first?.levels[kind])) continue;
    condition[kind] = first?.levels[kind] as string;
    for (const setup of setups) delete setup.levels[kind];
  }
  return { condition, setups };
}
