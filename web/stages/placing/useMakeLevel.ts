import type { FrameBoom } from '@marvet/core/domain/frame';
import { placementDraftSchema } from '@marvet/core/domain/placement';
import type { Plan } from '@marvet/core/domain/plan';
import type { BoomFigures } from '@marvet/core/place/boomFigures';
import { useCallback } from 'react';
import { useSavePlacementMutation } from '../../data/records.ts';
import { useSavePlanMutation } from '../../data/work.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

/** Makes a boom a placement of Kit with its numbers, and that placement a level of the plan. */
export function useMakeLevel(trialId: string, plan: Plan): (name: string, boom: FrameBoom, figures: BoomFigures) => Promise<void> {
  const [savePlacement] = useSavePlacementMutation();
  const [savePlan] = useSavePlanMutation();
  const told = useTold();
  const tell = useNotice();
  return useCallback(
    async (name, boom, figures) => {
      const heard = figures.talkers[boom.aimsAt];
      if (!heard) return;
      const draft = placementDraftSchema.parse({
        name,
        on: boom.from === 'planted' ? 'stand' : 'boom',
        heightM: Math.round(boom.heightM * 100) / 100,
        distanceM: Math.round(heard.distanceM * 100) / 100,
        offAxisDeg: Math.round(heard.mouthOffDeg),
        aimDeg: Math.round(heard.microphoneOffDeg),
      });
      const { data: placement } = await told(savePlacement({ trialId, from: null, draft }));
      if (!placement) return;
      const { trialId: _trial, version, committedAtMs: _committed, ...current } = plan;
      const level = { id: placement.id, label: placement.name, value: null, ticked: true };
      const known = current.factors.find((factor) => factor.kind === 'placement');
      const factors = known
        ? current.factors.map((factor) => (factor === known ? { ...factor, levels: [...factor.levels, level] } : factor))
        : [...current.factors, { kind: 'placement' as const, name: 'Placement', unit: '', levels: [level] }];
      const { error } = await told(savePlan({ trialId, version, draft: { ...current, factors } }));
      if (!error) tell(`${name} is a placement of Kit and a level of the plan`);
    },
    [plan, savePlacement, savePlan, tell, told, trialId],
  );
}
