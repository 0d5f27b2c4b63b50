import { BASIC_KINDS, FACTOR_KINDS, type Factor, type FactorKind } from '../domain/factor.ts';
import { type PlanDraft, planDraftSchema } from '../domain/plan.ts';
import { gatherTakes, type PlannedTake } from '../plan/gather.ts';
import { matrixSetups } from '../plan/matrix.ts';

/** Factors with so many ticked levels each; basic ones have one level where nothing is said. */
export function factorsOf(sizes: Partial<Record<FactorKind, number>>): Factor[] {
  const basic: readonly FactorKind[] = BASIC_KINDS;
  return FACTOR_KINDS.filter((kind) => basic.includes(kind) || sizes[kind]).map((kind) => ({
    kind,
    name: kind,
    unit: '',
    levels: Array.from({ length: sizes[kind] ?? 1 }, (_, index) => ({ id: `${kind}${index + 1}`, label: `${kind} ${index + 1}`, value: null, ticked: true })),
  }));
}

export function planOf(sizes: Partial<Record<FactorKind, number>>, change: Partial<PlanDraft> = {}): PlanDraft {
  return { ...planDraftSchema.parse({ factors: factorsOf(sizes) }), ...change };
}

/** All takes of a full matrix. Together: all candidates in each. */
export function takesOf(plan: Pick<PlanDraft, 'factors' | 'leftOut' | 'rules'>, together: boolean): PlannedTake[] {
  const ids = plan.factors.find((factor) => factor.kind === 'candidate')?.levels.map((level) => level.id) ?? [];
  return gatherTakes(matrixSetups(plan.factors, plan), together ? [ids] : []);
}
