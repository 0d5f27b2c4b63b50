import type { RankDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import { recordNext, recordNextText } from '@marvet/core/decide/doubt/recordNext';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useTrialId } from '../../data/trialData.ts';
import { useCommitPlanMutation, usePlanQuery, useSavePlanMutation, useTakesQuery } from '../../data/work.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

/** The takes that would tell the first from who is closest, and a press that puts them into the plan as slates. */
export function RecordNext({ doubt, nameOf }: { doubt: RankDoubt; nameOf(candidateId: string): string }) {
  const trialId = useTrialId();
  const plan = usePlanQuery(trialId).data;
  const takes = useTakesQuery(trialId).data;
  const [save] = useSavePlanMutation();
  const [commit] = useCommitPlanMutation();
  const [busy, setBusy] = useState(false);
  const told = useTold();
  const tell = useNotice();
  if (!plan || !takes || plan.committedAtMs === null) return null;
  const slates = takes.filter(({ pass }) => pass === 1);
  const next = recordNext(doubt, { repeats: plan.repeats, takesOfPlan: slates.length, open: slates.filter(({ status }) => status === 'planned').length });
  if (!next || doubt.first === null) return null;

  const doEach = async (repeats: number, version: number): Promise<number | null> => {
    const { trialId: _trial, version: _version, committedAtMs: _committed, ...draft } = plan;
    setBusy(true);
    const saved = await told(save({ trialId, version, draft: { ...draft, repeats } }));
    const made = saved.error ? saved : await told(commit(trialId));
    setBusy(false);
    return made.error ? null : (saved.data?.version ?? null);
  };
  const put = async () => {
    const version = await doEach(next.repeats, plan.version);
    if (version !== null) tell(`Each setup is planned ${next.repeats} times; the new slates are in Field`, () => void doEach(plan.repeats, version));
  };
  return (
    <div className="row-line no-print mb-1">
      <span className="grow">{recordNextText(next, nameOf(doubt.first), nameOf(next.candidateId))}</span>
      <Button size="sm" disabled={busy} onClick={() => void put()}>
        Plan {next.takes} takes more
      </Button>
    </div>
  );
}
