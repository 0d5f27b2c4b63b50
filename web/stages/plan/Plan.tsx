import { stationCautions } from '@marvet/core/domain/caution';
import { setupKey } from '@marvet/core/domain/factor';
import type { PlanDraft } from '@marvet/core/domain/plan';
import { useCallback, useMemo } from 'react';
import Nav from 'react-bootstrap/Nav';
import { useChainsQuery, useItemsQuery, useScriptsQuery, useStationsQuery } from '../../data/records.ts';
import { useTrialId } from '../../data/trialData.ts';
import { usePlanQuery, useSavePlanMutation, useTakesQuery } from '../../data/work.ts';
import { Cautions } from '../../parts/Cautions.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { SaveTrouble } from '../../parts/SaveTrouble.tsx';
import { Loaded } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { useDraft } from '../../parts/useDraft.ts';
import { Controls } from './Controls.tsx';
import { DayPart } from './DayPart.tsx';
import { DesignPart } from './DesignPart.tsx';
import { Factors } from './Factors.tsx';
import { FaultPart } from './FaultPart.tsx';
import { Matrix } from './Matrix.tsx';
import { OrderPart } from './OrderPart.tsx';
import type { ChangePlan, PlanPartProps } from './planPart.ts';
import { Rules } from './Rules.tsx';
import { Sums } from './Sums.tsx';
import { useWorkedOut } from './useWorkedOut.ts';

const PARTS = [
  ['vary', 'What is varied'],
  ['design', 'Design and fairness'],
  ['order', 'Order'],
  ['day', 'The day'],
  ['fault', 'Find a fault'],
] as const;

/** What is varied, what is held, which cells are recorded, in which order, and how the day goes. */
export default function Plan() {
  const trialId = useTrialId();
  const plan = usePlanQuery(trialId);
  const stations = useStationsQuery(trialId);
  const scripts = useScriptsQuery(trialId);
  const chains = useChainsQuery(trialId);
  const items = useItemsQuery();
  const takes = useTakesQuery(trialId);
  return (
    <Loaded of={[plan, stations, scripts, chains, items, takes]}>
      {() => {
        const { trialId: _trial, committedAtMs: _committed, ...current } = plan.data!;
        return (
          <PlanDesk
            trialId={trialId}
            plan={current}
            fetching={plan.isFetching}
            stations={stations.data!}
            scripts={scripts.data!}
            chains={chains.data!.filter((chain) => chain.candidate)}
            items={items.data!}
            takes={takes.data!}
          />
        );
      }}
    </Loaded>
  );
}

type VersionedPlan = PlanDraft & { version: number };

function PlanDesk({ fetching, ...records }: Omit<PlanPartProps, 'worked' | 'onChange' | 'plan'> & { plan: VersionedPlan; fetching: boolean }) {
  const { trialId, stations, scripts, chains, items, takes } = records;
  const [save, { error }] = useSavePlanMutation();
  const {
    draft: plan,
    change,
    conflict,
  } = useDraft(
    records.plan,
    fetching,
    useCallback((draft: VersionedPlan, _patch: unknown, version: number) => save({ trialId, version, draft }), [save, trialId]),
  );
  const [search, changeAddress] = useAddress();
  const context = useMemo(() => ({ chains, items, stations, scripts }), [chains, items, stations, scripts]);
  const working = useWorkedOut(plan, context);
  const tell = useNotice();
  const part = PARTS.find(([id]) => id === search.get('part'))?.[0] ?? 'vary';
  const worked = working.result && 'built' in working.result ? working.result : null;
  const changeTold: ChangePlan = (patch, told) => {
    const before = Object.fromEntries(Object.keys(patch).map((key) => [key, plan[key as keyof PlanDraft]]));
    change(patch);
    if (told) tell(told, () => change(before));
  };
  const chosen = useMemo(() => (worked ? new Set(worked.built.setups.map(setupKey)) : null), [worked]);
  const shared: PlanPartProps = { ...records, plan, worked, onChange: changeTold };
  return (
    <>
      <SaveTrouble what="The plan" conflict={conflict} error={error} />
      <Sums trialId={trialId} plan={plan} takes={takes} working={working} />
      <Nav variant="underline" className="parts no-print" activeKey={part} onSelect={(key) => changeAddress({ part: key === 'vary' ? null : key })} aria-label="Parts of the plan">
        {PARTS.map(([id, name]) => (
          <Nav.Item key={id}>
            <Nav.Link eventKey={id} as="button" type="button">
              {name}
              {id === 'design' && worked && worked.foreseen.length > 0 && <span className="part-count">{worked.foreseen.length}</span>}
            </Nav.Link>
          </Nav.Item>
        ))}
      </Nav>
      {part === 'vary' && (
        <>
          <Factors trialId={trialId} plan={plan} stations={stations} scripts={scripts} chains={chains} onChange={changeTold} />
          <Cautions cautions={stations.flatMap(stationCautions)} />
          <Rules plan={plan} onChange={changeTold} />
          <Matrix plan={plan} chains={chains} chosen={chosen} onChange={changeTold} />
          <Controls plan={plan} onChange={changeTold} />
        </>
      )}
      {part === 'design' && <DesignPart {...shared} />}
      {part === 'order' && <OrderPart {...shared} />}
      {part === 'day' && <DayPart {...shared} />}
      {part === 'fault' && <FaultPart {...shared} />}
    </>
  );
}
