import { placementDraftSchema } from '@marvet/core/domain/placement';
import { rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { wearerDraftSchema } from '@marvet/core/domain/wearer';
import Button from 'react-bootstrap/Button';
import { useLearnedQuery } from '../../data/placing.ts';
import {
  useChainsQuery,
  useFramesQuery,
  useItemsQuery,
  usePlacementsQuery,
  useRigsQuery,
  useSavePlacementMutation,
  useSaveRigMutation,
  useSaveWearerMutation,
  useStationsQuery,
  useWearersQuery,
} from '../../data/records.ts';
import { usePlanQuery } from '../../data/work.ts';
import { Empty, Loaded } from '../../parts/states.tsx';
import { useTold } from '../../parts/useTold.ts';
import { BodyDesk } from './BodyDesk.tsx';

/** Somebody who wears microphones, where they sit, and what is to be expected of them. */
export function BodyPart({ trialId }: { trialId: string }) {
  const wearers = useWearersQuery(trialId);
  const placements = usePlacementsQuery(trialId);
  const rigs = useRigsQuery(trialId);
  const frames = useFramesQuery(trialId);
  const chains = useChainsQuery(trialId);
  const stations = useStationsQuery(trialId);
  const items = useItemsQuery();
  const plan = usePlanQuery(trialId);
  const learned = useLearnedQuery();
  const [saveWearer] = useSaveWearerMutation();
  const [savePlacement] = useSavePlacementMutation();
  const [saveRig] = useSaveRigMutation();
  const told = useTold();
  const begin = async () => {
    await told(saveWearer({ trialId, from: null, draft: wearerDraftSchema.parse({ name: 'Wearer', position: wearers.data?.length ?? 0 }) }));
    if (!placements.data?.some(({ on }) => on === 'body'))
      await told(savePlacement({ trialId, from: null, draft: placementDraftSchema.parse({ name: 'breastbone, high', on: 'body', spot: 'breastbone high' }) }));
    if (rigs.data?.length === 0) await told(saveRig({ trialId, from: null, draft: rigRecordDraftSchema.parse({ name: 'open' }) }));
  };
  return (
    <Loaded of={[wearers, placements, rigs, frames, chains, items, stations, plan, learned]}>
      {() =>
        wearers.data!.length === 0 ? (
          <Empty>
            <p>Where does a lavalier sit, what lies over it, and what is left of the voice there? Draw who wears it, and move the spots.</p>
            <Button variant="primary" onClick={() => void begin()}>
              Draw a wearer
            </Button>
          </Empty>
        ) : (
          <BodyDesk
            trialId={trialId}
            wearers={wearers.data!}
            placements={placements.data!.filter(({ on }) => on === 'body')}
            rigs={rigs.data!}
            frames={frames.data!}
            chains={chains.data!}
            items={items.data!}
            stations={stations.data!}
            plan={plan.data!}
            learned={learned.data!}
            fetching={{ wearers: wearers.isFetching, placements: placements.isFetching, rigs: rigs.isFetching }}
          />
        )
      }
    </Loaded>
  );
}
