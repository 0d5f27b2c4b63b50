import { CloudOff } from 'lucide-react';
import { useWhoAmIQuery } from '../../data/door.ts';
import { useKeptHere } from '../../offline/useKeptHere.ts';
import { durationText } from '../../parts/durationText.ts';
import type { FieldState } from './useFieldLog.ts';

/** Whether every line is on the server, why not where it is not, and what this device can do without the server. */
export function LogState({ log, trialId }: { log: FieldState; trialId: string }) {
  const kept = useKeptHere(trialId);
  const guest = useWhoAmIQuery().data?.guest;
  if (log.failure) {
    return (
      <div className="trouble" role="alert">
        {log.failure}
      </div>
    );
  }
  const place = guest ? 'laptop' : 'server';
  return (
    <div>
      {log.waiting === 0 ? (
        <div className="small soft" role="status">
          Everything is on the {place}.
        </div>
      ) : (
        <div className={log.reachable ? 'small soft' : 'caution'} role="status">
          {!log.reachable && <CloudOff size={17} aria-hidden className="flex-shrink-0" />}
          {log.waiting} {log.waiting === 1 ? 'line is' : 'lines are'} kept in this browser{log.reachable ? ', being sent.' : ` until the ${place} is back. Go on logging.`}
        </div>
      )}
      {kept.state === 'kept' && <div className="small soft">Field opens here without the {place} too.</div>}
      {kept.state === 'not' && guest && <div className="caution">Keep this page open while the laptop is away: it cannot be opened without it. {kept.why}</div>}
      {log.clockBehindMs !== 0 && (
        <div className="small soft">
          This device's clock is {durationText(Math.abs(log.clockBehindMs) / 1000)} {log.clockBehindMs > 0 ? 'behind' : 'ahead of'} the {place}'s: its lines are put right as they
          arrive.
        </div>
      )}
    </div>
  );
}
