import type { Condition, ConditionKind, Factor, FactorKind } from '../domain/factor.ts';
import { EXTRA_KINDS } from '../domain/factor.ts';

/** Kinds of a condition in the order in which people say them. */
export const TOLD: readonly ConditionKind[] = ['station', 'distance', 'windscreen', ...EXTRA_KINDS, 'script'];

/** A condition's level on a kind, in words; nothing where it has none. */
export function conditionWords(factors: readonly Factor[], condition: Condition, kinds: readonly ConditionKind[] = TOLD): string[] {
  return kinds.flatMap((kind) => {
    const levelId = condition[kind];
    return levelId === undefined ? [] : [levelLabel(factors, kind, levelId)];
  });
}

/** The name of a level; what is no longer in the plan is called so. */
export function levelLabel(factors: readonly Factor[], kind: FactorKind, levelId: string): string {
  return factors.find((factor) => factor.kind === kind)?.levels.find((level) => level.id === levelId)?.label ?? 'no longer in the plan';
}
