import type { FrameBoom } from '@marvet/core/domain/frame';
import { placementDraftSchema } from '@marvet/core/domain/placement';
import type { Plan } from '@marvet/core/domain/plan';
import type { BoomFigures } from '@marvet/core/place/boomFigures';
import { useCallback } from 'react';
import { useSavePlacementMutation } from '../../data/records.ts';
import { useTold } from '../../parts/useTold.ts';
import { useAddLevel } from './useAddLevel.ts';

/** What a boom can be a level of. */
export type BoomLevel = 'placement' | 'distance' | 'orientation' | 'windscreen';

/** Makes a boom of a frame a level of the plan: a placement of Kit with its numbers, or its distance, its angle or its windscreen alone. */
export function useMakeLevel(trialId: string, plan: Plan): (what: BoomLevel, name: string, boom: FrameBoom, figures: BoomFigures, frameId: string) => Promise<void> {
  const [savePlacement] = useSavePlacementMutation();
  const addLevel = useAddLevel(trialId, plan);
  const told = useTold();
  return useCallback(
    async (what, name, boom, figures, frameId) => {
      const heard = figures.talkers[boom.aimsAt];
      if (!heard) return;
      const distanceM = Math.round(heard.distanceM * 100) / 100;
      if (what === 'distance') return void (await addLevel('distance', { id: String(distanceM), label: `${distanceM} m`, value: distanceM }));
      const offDeg = Math.round(heard.mouthOffDeg);
      if (what === 'orientation') return void (await addLevel('orientation', { id: `${offDeg}-off`, label: `${offDeg}° off the mouth’s axis`, value: offDeg }));
      if (what === 'windscreen') {
        const screen = boom.screenM > 0 ? { id: 'foam', label: 'foam', value: null } : { id: 'bare', label: 'bare', value: null };
        return void (await addLevel('windscreen', screen));
      }
      const draft = placementDraftSchema.parse({
        name,
        on: boom.from === 'planted' ? 'stand' : 'boom',
        heightM: Math.round(boom.heightM * 100) / 100,
        distanceM,
        offAxisDeg: offDeg,
        aimDeg: Math.round(heard.microphoneOffDeg),
        frameId,
        boomId: boom.id,
      });
      const { data: placement } = await told(savePlacement({ trialId, from: null, draft }));
      if (placement) await addLevel('placement', { id: placement.id, label: placement.name, value: null });
    },
    [addLevel, savePlacement, told, trialId],
  );
}
