import { type Placement, placementDraftSchema } from '@marvet/core/domain/placement';
import { type RigRecord, rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { useState } from 'react';
import { useLibraryPlacementsQuery, useLibraryRigsQuery } from '../../data/library.ts';
import { usePlacementsQuery, useRigsQuery, useSavePlacementMutation, useSaveRigMutation } from '../../data/records.ts';
import { Loaded } from '../../parts/states.tsx';
import { useBin } from '../../parts/useBin.ts';
import { useTold } from '../../parts/useTold.ts';
import { PlaceList } from './PlaceList.tsx';
import { PlacementDialog } from './PlacementDialog.tsx';
import { RigDialog } from './RigDialog.tsx';
import { useLibrary } from './useLibrary.ts';

/** Where microphones sit and how they are fixed in this trial, in numbers rather than in words. */
export function Places({ trialId }: { trialId: string }) {
  return (
    <div className="columns">
      <Placements trialId={trialId} />
      <Rigs trialId={trialId} />
    </div>
  );
}

function Placements({ trialId }: { trialId: string }) {
  const placements = usePlacementsQuery(trialId);
  const kept = useLibraryPlacementsQuery();
  const [edited, setEdited] = useState<Placement | 'new' | null>(null);
  const [save] = useSavePlacementMutation();
  const library = useLibrary('placements');
  const bin = useBin(trialId, 'placement');
  const told = useTold();
  return (
    <Loaded of={[placements, kept]}>
      {() => (
        <>
          <PlaceList
            title="Placements"
            add="Placement"
            empty="Where does a microphone sit? Distance, angle and height in numbers make takes comparable, and rooms and voices can be worked out for them."
            rows={placements.data!}
            kept={kept.data!}
            says={placementText}
            onAdd={() => setEdited('new')}
            onEdit={(row) => setEdited(row)}
            onBin={(row) => bin(row.id, row.name)}
            onKeep={(row) => library.keep(placementDraftSchema.parse(row))}
            onUse={(row) => void told(save({ trialId, from: null, draft: placementDraftSchema.parse(row) }))}
            onForget={(row) => library.remove(row.id, row.name)}
          />
          {edited && <PlacementDialog trialId={trialId} placement={edited === 'new' ? null : edited} onClose={() => setEdited(null)} />}
        </>
      )}
    </Loaded>
  );
}

function Rigs({ trialId }: { trialId: string }) {
  const rigs = useRigsQuery(trialId);
  const kept = useLibraryRigsQuery();
  const [edited, setEdited] = useState<RigRecord | 'new' | null>(null);
  const [save] = useSaveRigMutation();
  const library = useLibrary('rigs');
  const bin = useBin(trialId, 'rig');
  const told = useTold();
  return (
    <Loaded of={[rigs, kept]}>
      {() => (
        <>
          <PlaceList
            title="Rigs"
            add="Rig"
            empty="How is it fixed and covered? Layers and what one takes away say more than “hidden”."
            rows={rigs.data!}
            kept={kept.data!}
            says={rigText}
            onAdd={() => setEdited('new')}
            onEdit={(row) => setEdited(row)}
            onBin={(row) => bin(row.id, row.name)}
            onKeep={(row) => library.keep(rigRecordDraftSchema.parse(row))}
            onUse={(row) => void told(save({ trialId, from: null, draft: rigRecordDraftSchema.parse(row) }))}
            onForget={(row) => library.remove(row.id, row.name)}
          />
          {edited && <RigDialog trialId={trialId} rig={edited === 'new' ? null : edited} onClose={() => setEdited(null)} />}
        </>
      )}
    </Loaded>
  );
}

function placementText({ on, distanceM, offAxisDeg, belowChinM, heightM, remark }: Placement): string {
  const height =
    on === 'body' ? belowChinM !== null && `${Math.abs(belowChinM)} m ${belowChinM < 0 ? 'over' : 'under'} the chin` : heightM !== null && `${heightM} m over the ground`;
  return [`on ${on}`, distanceM !== null && `${distanceM} m from the mouth`, offAxisDeg !== null && `${offAxisDeg}° off its axis`, height, remark].filter(Boolean).join(', ');
}

function rigText({ fixing, clothLayers, clothLossDb, cloth, capLiftDb, onSkin, remark }: RigRecord): string {
  const layers = clothLayers > 0 && `${clothLayers} ${clothLayers === 1 ? 'layer' : 'layers'}${cloth && ` of ${cloth}`}${clothLossDb === null ? '' : `, ${clothLossDb} dB each`}`;
  return [fixing, layers, capLiftDb !== null && `cap lifts ${capLiftDb} dB`, onSkin && 'on skin', remark].filter(Boolean).join(', ');
}
