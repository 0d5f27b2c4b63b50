import { Circle } from 'lucide-react';
import { RollingTime } from '../RollingTime.tsx';
import { Heard } from './Heard.tsx';
import { useRecorderState } from './useTakeRecorder.ts';

/** A quarter of a second each: more than a few that wait are told. */
const FEW_WAITING = 4;

/** What is being recorded, what was heard in it, and whether it is all on the server's disk. */
export function Recorded() {
  const { recording, heard, waiting, reachable } = useRecorderState();
  return (
    <div className="stack">
      {recording && (
        <div className="row-line recording-now" role="status">
          <Circle size={14} aria-hidden fill="currentColor" className="alarm" /> Recording {recording.channels.length} {recording.channels.length === 1 ? 'channel' : 'channels'}{' '}
          <RollingTime sinceMs={recording.startedAtMs} />
        </div>
      )}
      {(recording || heard.length > 0) && <Heard heard={heard} />}
      {waiting > FEW_WAITING && (
        <div className={reachable ? 'small soft' : 'caution'} role="status">
          {(waiting / 4).toFixed(0)} s of sound {reachable ? 'are on their way to the disk.' : 'are kept in this browser until the server is back. Go on.'}
        </div>
      )}
    </div>
  );
}
