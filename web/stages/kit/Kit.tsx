import { useChainsQuery, useCriteriaQuery, useItemsQuery, useMarksQuery } from '../../app/api/records.ts';
import { useTrialId } from '../../app/trialData.ts';
import { Loaded } from '../../parts/states.tsx';
import { Chains } from './Chains.tsx';
import { Inspection } from './Inspection.tsx';
import { Items } from './Items.tsx';
import { Levels } from './Levels.tsx';

/** What takes part: chains with their totals, marks from inspecting them, and the library of items. */
export default function Kit() {
  const trialId = useTrialId();
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  const criteria = useCriteriaQuery(trialId);
  const marks = useMarksQuery(trialId);
  return (
    <Loaded of={[chains, items, criteria, marks]}>
      {() => (
        <>
          <Chains trialId={trialId} chains={chains.data!} items={items.data!} />
          <Levels trialId={trialId} chains={chains.data!} items={new Map(items.data!.map((item) => [item.id, item]))} />
          <Inspection trialId={trialId} chains={chains.data!} criteria={criteria.data!} marks={marks.data!} />
          <Items items={items.data!} />
        </>
      )}
    </Loaded>
  );
}
