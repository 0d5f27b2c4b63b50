import type { Factor, FactorKind, Level } from '@marvet/core/domain/factor';
import type { Plan } from '@marvet/core/domain/plan';
import { newFactor } from '@marvet/core/plan/followRecords';
import { useCallback } from 'react';
import { useSavePlanMutation } from '../../data/work.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

/** Adds a level to a factor of the plan, which is made where there is none; a level that is there already is ticked. */
export function useAddLevel(trialId: string, plan: Plan): (kind: FactorKind, level: Omit<Level, 'ticked'>) => Promise<boolean> {
  const [savePlan] = useSavePlanMutation();
  const told = useTold();
  const tell = useNotice();
  return useCallback(
    async (kind, level) => {
      const { trialId: _trial, version, committedAtMs: _committed, ...current } = plan;
      const { error } = await told(savePlan({ trialId, version, draft: { ...current, factors: withLevel(current.factors, kind, { ...level, ticked: true }) } }));
      if (!error) tell(`${level.label} is a level of the plan`);
      return !error;
    },
    [plan, savePlan, tell, told, trialId],
  );
}

function withLevel(factors: readonly Factor[], kind: FactorKind, level: Level): Factor[] {
  const known = factors.find((factor) => factor.kind === kind);
  if (!known) return [...factors, newFactor(kind, [level])];
  const there = known.levels.some(({ id }) => id === level.id);
  const levels = there ? known.levels.map((each) => (each.id === level.id ? { ...each, ticked: true } : each)) : [...known.levels, level];
  return factors.map((factor) => (factor === known ? { ...factor, levels } : factor));
}
