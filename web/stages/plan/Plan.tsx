import { stationCautions } from '@marvet/core/domain/caution';
import type { PlanDraft } from '@marvet/core/domain/plan';
import { useChainsQuery, useScriptsQuery, useStationsQuery } from '../../app/api/records.ts';
import { usePlanQuery, useSavePlanMutation, useTakesQuery } from '../../app/api/work.ts';
import { useTrialId } from '../../app/trialData.ts';
import { Cautions } from '../../parts/Cautions.tsx';
import { Loaded, Trouble } from '../../parts/states.tsx';
import { Controls } from './Controls.tsx';
import { Factors } from './Factors.tsx';
import { Matrix } from './Matrix.tsx';
import { Sums } from './Sums.tsx';

/** What is varied, what is held, which cells are recorded, in which order and how long it takes. */
export default function Plan() {
  const trialId = useTrialId();
  const plan = usePlanQuery(trialId);
  const stations = useStationsQuery(trialId);
  const scripts = useScriptsQuery(trialId);
  const chains = useChainsQuery(trialId);
  const takes = useTakesQuery(trialId);
  const [save, { error }] = useSavePlanMutation();
  return (
    <Loaded of={[plan, stations, scripts, chains, takes]}>
      {() => {
        const { trialId: _trial, committedAtMs: _committed, ...current } = plan.data!;
        const change = (patch: Partial<PlanDraft>) => void save({ trialId, draft: { ...current, ...patch } });
        return (
          <>
            <Trouble error={error} />
            <Sums trialId={trialId} plan={current} scripts={scripts.data!} takes={takes.data!} onChange={change} />
            <Factors trialId={trialId} plan={current} stations={stations.data!} scripts={scripts.data!} chains={chains.data!} onChange={change} />
            <Cautions cautions={stations.data!.flatMap(stationCautions)} />
            <Matrix plan={current} chains={chains.data!} onChange={change} />
            <Controls plan={current} onChange={change} />
          </>
        );
      }}
    </Loaded>
  );
}
