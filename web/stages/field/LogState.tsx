import { CloudOff } from 'lucide-react';
import type { FieldState } from './useFieldLog.ts';

/** Whether every line is on the server, and why not where it is not. */
export function LogState({ log }: { log: FieldState }) {
  if (log.failure) {
    return (
      <div className="trouble" role="alert">
        {log.failure}
      </div>
    );
  }
  if (log.waiting === 0)
    return (
      <div className="small soft" role="status">
        Everything is on the server.
      </div>
    );
  return (
    <div className={log.reachable ? 'small soft' : 'caution'} role="status">
      {!log.reachable && <CloudOff size={17} aria-hidden />}
      {log.waiting} {log.waiting === 1 ? 'line is' : 'lines are'} kept in this browser{log.reachable ? ', being sent.' : ' until the server is back. Go on logging.'}
    </div>
  );
}
