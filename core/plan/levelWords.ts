import { type ConditionKind, conditionOfKey, EXTRA_KINDS, type Factor, type FactorKind, NOT_KNOWN, type SharedCondition } from '../domain/factor.ts';
import type { PlanDraft } from '../domain/plan.ts';
import { switchWords } from '../domain/switches.ts';

/** Kinds of a condition in the order in which people say them. */
export const TOLD: readonly ConditionKind[] = ['station', 'distance', 'windscreen', ...EXTRA_KINDS, 'script'];

/** Where the names of levels stand: a plan, with the levels that were taken out of it, or its factors alone. */
export type LevelNames = readonly Factor[] | Pick<PlanDraft, 'factors' | 'removedLevels'>;

/** A condition's level on a kind, in words; nothing where it has none, or where it is not known. */
export function conditionWords(names: LevelNames, condition: Partial<SharedCondition>, kinds: readonly ConditionKind[] = TOLD): string[] {
  return kinds.flatMap((kind) => {
    const levelId = condition[kind];
    return levelId === undefined || levelId === NOT_KNOWN ? [] : [levelLabel(names, kind, levelId)];
  });
}

/** The name of a level, also of one that nobody knows, or of one that was taken out of the plan; of one that nobody knows any more it is said. */
export function levelLabel(names: LevelNames, kind: FactorKind, levelId: string): string {
  const factors = 'factors' in names ? names.factors : names;
  const known = factors.find((factor) => factor.kind === kind)?.levels.find((level) => level.id === levelId);
  const removed = 'factors' in names ? names.removedLevels.find((each) => each.kind === kind && each.level.id === levelId)?.level : undefined;
  return (known ?? removed)?.label ?? switchWords(levelId) ?? (levelId === NOT_KNOWN ? NOT_KNOWN : 'no longer in the plan');
}

/** The words of a condition from its key; where nothing of it is known that is said. */
export function conditionWordsOfKey(names: LevelNames, key: string): string {
  return conditionWords(names, conditionOfKey(key)).join(', ') || (key.includes(NOT_KNOWN) ? 'a moment without a plan' : '');
}
