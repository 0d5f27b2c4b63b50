import { placementDraftSchema } from '@marvet/core/domain/placement';
import { rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { useLibraryPlacementsQuery, useLibraryRigsQuery } from '../../data/library.ts';
import { usePlacementsQuery, useRigsQuery, useSavePlacementMutation, useSaveRigMutation } from '../../data/records.ts';
import { placementText, rigText } from '../../parts/placeTexts.ts';
import { PlaceList } from './PlaceList.tsx';
import { PlacementDialog } from './PlacementDialog.tsx';
import { RigDialog } from './RigDialog.tsx';

/** Where microphones sit and how they are fixed in this trial, in numbers rather than in words. */
export function Places({ trialId }: { trialId: string }) {
  const [savePlacement] = useSavePlacementMutation();
  const [saveRig] = useSaveRigMutation();
  return (
    <div className="columns halves">
      <PlaceList
        trialId={trialId}
        kind="placements"
        title="Placements"
        add="Placement"
        empty="Where does a microphone sit? Distance, angle and height in numbers make takes comparable, and rooms and voices can be worked out for them."
        own={usePlacementsQuery(trialId)}
        kept={useLibraryPlacementsQuery()}
        says={placementText}
        draftOf={(row) => placementDraftSchema.parse(row)}
        make={(draft) => savePlacement({ trialId, from: null, draft })}
        dialog={(placement, onClose) => <PlacementDialog trialId={trialId} placement={placement} onClose={onClose} />}
      />
      <PlaceList
        trialId={trialId}
        kind="rigs"
        title="Rigs"
        add="Rig"
        empty="How is it fixed and covered? Layers and what one takes away say more than “hidden”."
        own={useRigsQuery(trialId)}
        kept={useLibraryRigsQuery()}
        says={rigText}
        draftOf={(row) => rigRecordDraftSchema.parse(row)}
        make={(draft) => saveRig({ trialId, from: null, draft })}
        dialog={(rig, onClose) => <RigDialog trialId={trialId} rig={rig} onClose={onClose} />}
      />
    </div>
  );
}
