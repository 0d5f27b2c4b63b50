import type { JobKind } from '@marvet/core/domain/job';
import Button from 'react-bootstrap/Button';
import { useTrialId } from '../data/trialData.ts';
import { useCancelJobMutation, useJobsQuery } from '../data/work.ts';
import { Progress } from './Progress.tsx';
import { Trouble, Waiting } from './states.tsx';

const ASKED_EVERY_MS = 700;

/** How far the work is that the page waits for, with a way to stop it. */
export function WorkUnderWay({ kind, label }: { kind: JobKind; label: string }) {
  const trialId = useTrialId();
  const { data } = useJobsQuery(trialId, { pollingInterval: ASKED_EVERY_MS, refetchOnMountOrArgChange: true });
  const [cancel, cancelled] = useCancelJobMutation();
  const job = data?.filter((each) => each.kind === kind && each.state !== 'failed').at(-1);
  if (!job) return <Waiting />;
  return (
    <div className="row-line" data-loading>
      <span className="soft">{label}</span>
      <Progress share={job.progress} label={label} widthPx={180} />
      <span className="mono small">{Math.round(100 * job.progress)} %</span>
      <Button size="sm" variant="outline" disabled={cancelled.isLoading} onClick={() => void cancel({ trialId, id: job.id })}>
        Cancel
      </Button>
      <Trouble error={cancelled.error} />
    </div>
  );
}
