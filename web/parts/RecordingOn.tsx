import { Circle } from 'lucide-react';
import { Link, useLocation } from 'react-router';
import { useAppSelector } from '../data/store.ts';

/** Says on every other view that a take is still being recorded, and leads back to where it is stopped. */
export function RecordingOn() {
  const { trialId, takeId } = useAppSelector((state) => state.recordingNow);
  const { pathname } = useLocation();
  if (trialId === null || pathname === `/trials/${trialId}/field`) return null;
  return (
    <div className="caution no-print" role="status">
      <Circle size={16} aria-hidden fill="currentColor" className="alarm flex-shrink-0 mt-1" />
      <span>
        A take is still being recorded. <Link to={`/trials/${trialId}/field?take=${takeId}`}>Back to it</Link>
      </span>
    </div>
  );
}
