import type { RecordingDetail } from '@marvet/core/contract/recordings';
import type { Span } from '@marvet/core/measure/report.types';
import Button from 'react-bootstrap/Button';
import { useMarkRoomToneMutation } from '../../data/work.ts';
import { useTold } from '../../parts/useTold.ts';

export const SHORTEST_ROOM_TONE_S = 0.15;

/** Marks room tone, or takes the mark away; the file is measured again with it. */
export function useRoomTone({ trialId, id }: Pick<RecordingDetail, 'trialId' | 'id'>): (roomTone: Span | null) => Promise<{ error?: unknown }> {
  const [mark] = useMarkRoomToneMutation();
  const told = useTold();
  return (roomTone) => told(mark({ trialId, id, roomTone }));
}

interface RoomToneProps {
  recording: RecordingDetail;
  lengthS: number;
  shown: Span;
  /** Longest pause that was found: where marking begins. */
  longest: Span | null;
  onMark(roomTone: Span | null): Promise<{ error?: unknown }>;
}

/** Which quiet the noise is measured in: pauses that were found, or a stretch marked by hand, whose edges are moved on the picture. */
export function RoomTone({ recording: { roomTone }, lengthS, shown, longest, onMark }: RoomToneProps) {
  const whole = longest ?? shown;
  // The picture goes on to a whole step, the recording does not.
  const mark = ([fromS, toS]: Span) => void onMark([Math.max(0, fromS), Math.min(lengthS, toS)]);
  return (
    <section className="row-line mt-1" aria-label="Room tone">
      <span>
        Room tone:{' '}
        {roomTone ? (
          <>
            <b className="mono">{roomTone[0].toFixed(2)}</b> to <b className="mono">{roomTone[1].toFixed(2)} s</b>, marked by hand.
          </>
        ) : (
          'all pauses that were found.'
        )}
      </span>
      {!roomTone && (
        <Button size="sm" variant="outline" disabled={whole[1] - whole[0] < SHORTEST_ROOM_TONE_S} onClick={() => mark(whole)}>
          {longest ? 'Mark the longest pause' : 'Mark what is shown'}
        </Button>
      )}
      {roomTone && (
        <>
          <Button size="sm" variant="outline" disabled={shown[1] - shown[0] < SHORTEST_ROOM_TONE_S} onClick={() => mark(shown)}>
            Mark what is shown
          </Button>
          <Button size="sm" variant="plain" onClick={() => void onMark(null)}>
            Take this mark away
          </Button>
          <span className="small soft">Move its edges on the picture.</span>
        </>
      )}
    </section>
  );
}
