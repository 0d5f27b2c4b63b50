import type { Factor, FactorKind } from '../domain/factor.ts';

/** The name of a level; what is no longer in the plan is called so. */
export function levelLabel(factors: readonly Factor[], kind: FactorKind, levelId: string): string {
  return factors.find((factor) => factor.kind === kind)?.levels.find((level) => level.id === levelId)?.label ?? 'no longer in the plan';
}
