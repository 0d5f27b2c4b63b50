import { type Condition, conditionKey, type FactorKind, type Setup } from '../../domain/factor.ts';
import type { PlanDraft } from '../../domain/plan.ts';
import { matrixSetups, variedKinds } from '../matrix.ts';
import { effectsDesign } from './effectsDesign.ts';
import { ladder, oneChange } from './oneChange.ts';
import { pairCovering } from './pairCovering.ts';

export type DesignedPlan = Pick<PlanDraft, 'factors' | 'leftOut' | 'rules' | 'design'>;

/**
 * Setups that a plan's design records, of those that can occur.
 * @param allTogether one take carries all candidates, so they come free: the design chooses conditions,
 * and each is recorded with every candidate that it can have
 */
export function chooseSetups(plan: DesignedPlan, allTogether: boolean): Setup[] {
  const possible = matrixSetups(plan.factors, plan);
  const varied = variedKinds(plan.factors);
  if (plan.design.kind === 'full') return possible;
  if (!allTogether) return designed(possible, varied, plan);
  const byCondition = new Map<string, Setup>();
  for (const setup of possible) if (!byCondition.has(conditionKey(setup))) byCondition.set(conditionKey(setup), setup);
  const kinds = varied.filter((kind) => kind !== 'candidate');
  const kept = new Set(designed([...byCondition.values()], kinds, plan).map((setup) => conditionKey(setup as Condition)));
  return possible.filter((setup) => kept.has(conditionKey(setup)));
}

function designed(possible: readonly Setup[], kinds: readonly FactorKind[], { design }: DesignedPlan): Setup[] {
  if (possible.length === 0) return [];
  switch (design.kind) {
    case 'full':
      return [...possible];
    case 'pairs':
      return pairCovering(possible, kinds);
    case 'effects':
      return effectsDesign(possible, kinds, design.interactions);
    case 'one change':
      return oneChange(possible, kinds, design.base);
    case 'ladder':
      return ladder(possible, kinds, design);
  }
}
