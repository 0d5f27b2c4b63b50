import type { EventKind } from '@marvet/core/domain/measureId';
import { EVENT_NAMES } from '@marvet/core/measure/eventNames';
import type { HeardEvent } from './takeRecorder.ts';

/** Faults of the signal: these spoil a take, whatever else is in it. */
const FAULTS: readonly EventKind[] = ['dropout', 'clip', 'click'];

/** What was heard so far in a take that is recorded, by channel and kind; faults first. */
export function Heard({ heard }: { heard: readonly HeardEvent[] }) {
  if (heard.length === 0) return <span className="small soft">Nothing odd was heard so far.</span>;
  const keyOf = ({ name, kind }: HeardEvent) => `${name} ${kind}`;
  const groups = [...new Set(heard.map(keyOf))].map((key) => heard.filter((event) => keyOf(event) === key));
  const isFault = (group: readonly HeardEvent[]) => FAULTS.includes((group[0] as HeardEvent).kind);
  return (
    <div role="status">
      <ul className="heard small">
        {[...groups.filter(isFault), ...groups.filter((group) => !isFault(group))].map((group) => {
          const last = group.at(-1) as HeardEvent;
          return (
            <li key={`${last.name} ${last.kind}`} className={isFault(group) ? 'alarm' : 'soft'}>
              {last.name}: {EVENT_NAMES[last.kind]} {group.length === 1 ? 'once' : `${group.length} times, last`} at {last.startS.toFixed(1)} s
            </li>
          );
        })}
      </ul>
    </div>
  );
}
