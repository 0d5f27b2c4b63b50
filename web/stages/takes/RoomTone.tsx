import type { RecordingDetail } from '@marvet/core/contract/recordings';
import type { Span } from '@marvet/core/measure/report.types';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useMarkRoomToneMutation } from '../../data/work.ts';
import { Field } from '../../parts/fields.tsx';
import { useTold } from '../../parts/useTold.ts';

/** Room tone marked by hand: wins over the pauses that were found, and has the file measured again. */
export function RoomTone({ recording, shown }: { recording: RecordingDetail; shown: Span }) {
  const [mark, { isLoading }] = useMarkRoomToneMutation();
  const told = useTold();
  const [fromS, setFromS] = useState(recording.roomTone?.[0].toFixed(2) ?? '');
  const [toS, setToS] = useState(recording.roomTone?.[1].toFixed(2) ?? '');
  const span: Span = [Number(fromS), Number(toS)];
  const usable = fromS !== '' && toS !== '' && span[1] - span[0] >= 0.15;
  const send = (roomTone: Span | null) => void told(mark({ trialId: recording.trialId, id: recording.id, roomTone }));
  return (
    <form
      className="filters mt-2"
      aria-label="Room tone"
      onSubmit={(event) => {
        event.preventDefault();
        if (usable) send(span);
      }}
    >
      <Field label="Room tone from, s">
        {(id) => <Form.Control id={id} size="sm" type="number" min={0} step={0.01} value={fromS} onChange={(event) => setFromS(event.target.value)} />}
      </Field>
      <Field label="to, s">{(id) => <Form.Control id={id} size="sm" type="number" min={0} step={0.01} value={toS} onChange={(event) => setToS(event.target.value)} />}</Field>
      <Button
        size="sm"
        variant="outline"
        onClick={() => {
          setFromS(shown[0].toFixed(2));
          setToS(shown[1].toFixed(2));
        }}
      >
        Take what is shown
      </Button>
      <Button size="sm" type="submit" variant="primary" disabled={!usable || isLoading}>
        Mark and measure again
      </Button>
      {recording.roomTone && (
        <Button
          size="sm"
          variant="plain"
          onClick={() => {
            setFromS('');
            setToS('');
            send(null);
          }}
        >
          Take the mark away
        </Button>
      )}
      <span className="small soft mb-1">
        {recording.roomTone
          ? `Marked by hand: ${recording.roomTone[0].toFixed(2)} to ${recording.roomTone[1].toFixed(2)} s.`
          : 'Pauses were found by themselves; zoom to quiet to mark your own.'}
      </span>
    </form>
  );
}
