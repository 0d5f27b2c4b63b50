import type { Factor, Level } from '../domain/factor.ts';
import type { PlanDraft } from '../domain/plan.ts';
import type { StartingPoint } from '../domain/startingPoint.ts';
import { levelIdOf, newFactor } from './followRecords.ts';

/**
 * A plan with what a starting point varies, holds and designs. Levels that the plan has already keep
 * their identity; of the factors that the point names only its own levels stay ticked.
 */
export function startPlan(plan: PlanDraft, point: Pick<StartingPoint, 'factors' | 'controls' | 'design'>): PlanDraft {
  let factors: Factor[] = plan.factors;
  for (const { kind, labels } of point.factors) {
    const known = factors.find((factor) => factor.kind === kind);
    const factor = known ?? newFactor(kind);
    const levels: Level[] = factor.levels.map((level) => ({ ...level, ticked: labels.includes(level.label) }));
    for (const label of labels) {
      if (!levels.some((level) => level.label === label)) levels.push(newLevel(kind, label));
    }
    const next = { ...factor, levels: kind === 'distance' ? levels.sort((a, b) => (a.value ?? 0) - (b.value ?? 0)) : levels };
    factors = known ? factors.map((each) => (each === known ? next : each)) : [...factors, next];
  }
  const named = new Set(plan.controls.map((control) => control.name));
  return {
    ...plan,
    factors,
    controls: [...plan.controls, ...point.controls.filter((control) => !named.has(control.name))],
    design: { ...plan.design, kind: point.design },
  };
}

function newLevel(kind: Factor['kind'], label: string): Level {
  const value = Number.parseFloat(label);
  return { id: kind === 'distance' ? String(value) : levelIdOf(label), label, value: Number.isFinite(value) ? value : null, ticked: true };
}
