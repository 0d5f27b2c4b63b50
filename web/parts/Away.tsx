import { CloudOff, DoorClosed } from 'lucide-react';
import { AT_LAPTOP } from '../data/api.ts';
import { useAppSelector } from '../data/store.ts';
import { clockText } from './dateText.ts';

/** Says when a page shows what this device kept, because the laptop is out of reach, or because it was put out. */
export function Away() {
  const { keptSince, notIn } = useAppSelector((state) => state.reach);
  if (notIn !== null)
    return (
      <div className="caution no-print" role="status">
        <DoorClosed size={18} aria-hidden className="flex-shrink-0 mt-1" />
        <span>
          {notIn} <a href="/enter">Type a code</a>
        </span>
      </div>
    );
  if (keptSince === null) return null;
  return (
    <div className="caution no-print" role="status">
      <CloudOff size={18} aria-hidden className="flex-shrink-0 mt-1" />
      <span>
        {AT_LAPTOP ? 'The server is away' : 'The laptop is out of reach'}: as it was at {clockText(Date.parse(keptSince))}, and what was logged here since. Go on.
      </span>
    </div>
  );
}
