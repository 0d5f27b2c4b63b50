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

  const { trialId: _trial, version, committedAtMs: _committed, ...draft } = plan;
  /** Puts it into the plan as it was looked at; where it was changed meanwhile it stays, and that is said. */
  const doEach = async (repeats: number, from: number) => {
    const saved = await told(save({ trialId, version: from, draft: { ...draft, repeats } }));
    const made = saved.error ? null : await told(commit(trialId));
    return saved.data && made?.data ? { version: saved.data.version, added: made.data.added } : null;
  };
  const put = async () => {
    setBusy(true);
    const done = await doEach(next.repeats, version);
    setBusy(false);
    if (done) tell(`Each setup is planned ${next.repeats} times: ${done.added} new slates are in Field`, () => void doEach(plan.repeats, done.version));
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
