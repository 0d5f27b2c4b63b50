import Button from 'react-bootstrap/Button';
import { useChangeTrialMutation, useTrialQuery } from '../../data/trials.ts';
import { useTold } from '../../parts/useTold.ts';

/** Asked once for a trial: whether slates are spoken on its recordings, since a spoken slate names what is to be heard blind. */
export function SlatesSpoken({ trialId }: { trialId: string }) {
  const { data: trial } = useTrialQuery(trialId);
  const [save, { isLoading }] = useChangeTrialMutation();
  const told = useTold();
  if (!trial) return null;
  const set = (slatesSpoken: boolean | null) => void told(save({ id: trialId, version: trial.version, patch: { slatesSpoken } }));
  if (trial.slatesSpoken !== null) {
    return (
      <div className="small soft">
        {trial.slatesSpoken
          ? 'Slates are spoken on the recordings: what is judged begins after them.'
          : 'No slates are spoken on the recordings: what is judged begins with the first word.'}{' '}
        <Button size="sm" variant="plain" disabled={isLoading} onClick={() => set(!trial.slatesSpoken)}>
          Change
        </Button>
      </div>
    );
  }
  return (
    <div className="caution row-line" role="status">
      <b className="grow">Are slates spoken on these recordings? A spoken slate names the take, so listening must begin after it.</b>
      <Button size="sm" disabled={isLoading} onClick={() => set(true)}>
        Yes, they are spoken
      </Button>
      <Button size="sm" variant="outline" disabled={isLoading} onClick={() => set(false)}>
        No
      </Button>
    </div>
  );
}
