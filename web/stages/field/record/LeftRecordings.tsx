import { slateLabel, type Take } from '@marvet/core/domain/take';
import Button from 'react-bootstrap/Button';
import { useFinishCaptureMutation, useOpenCapturesQuery } from '../../../data/captures.ts';
import { durationText } from '../../../parts/durationText.ts';
import { useTold } from '../../../parts/useTold.ts';
import { useRecorderState } from './useTakeRecorder.ts';

const POLL_MS = 4000;

/** Recordings that another page, or one that is gone, left open: told, and closed at once if somebody says so. */
export function LeftRecordings({ trialId, takes }: { trialId: string; takes: readonly Take[] }) {
  const { data: open = [] } = useOpenCapturesQuery(trialId, { pollingInterval: POLL_MS });
  const { recording } = useRecorderState();
  const [finish] = useFinishCaptureMutation();
  const told = useTold();
  return open
    .filter(({ id }) => id !== recording?.captureId)
    .map(({ id, takeId, lengthS }) => {
      const take = takes.find((each) => each.id === takeId);
      return (
        <div key={id} className="caution" role="status">
          <span className="grow">
            {take ? `Take ${slateLabel(take)}` : 'A take'}, {durationText(lengthS)} of it, is recorded by another page, or was left by one. What that page still has is sent when it
            is opened again; two minutes after the last of it the recording is closed by itself.
          </span>
          <Button size="sm" variant="outline" onClick={() => void told(finish({ trialId, captureId: id, binned: false }))}>
            Close it now
          </Button>
        </div>
      );
    });
}
