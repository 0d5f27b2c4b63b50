import { type PlannedTake, takeKey } from '@marvet/core/plan/gather';
import { conditionWords } from '@marvet/core/plan/levelWords';
import { movedPins } from '@marvet/core/plan/order/pins';
import { ArrowDown, ArrowUp, Lock, LockOpen } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { durationText } from '../../parts/durationText.ts';
import { Sheet } from '../../parts/states.tsx';
import { factorName, type PlanPartProps } from './planPart.ts';
import { SetupTapes } from './SetupTapes.tsx';

const SHOWN_AT_FIRST = 60;

/** The takes in the order in which they will be done; a row that is moved or locked keeps its place. */
export function TakeOrderList({ plan, worked, chains, onChange }: PlanPartProps) {
  const [all, setAll] = useState(false);
  if (!worked || worked.built.takes.length === 0) return null;
  const { takes } = worked.built;
  const pins = plan.order.pinned;
  const isPinned = (take: PlannedTake, position: number) => pins.some((pin) => pin.position === position && pin.key === takeKey(take));
  const pin = (take: PlannedTake, from: number, to: number | null) => {
    const key = takeKey(take);
    onChange({ order: { ...plan.order, pinned: movedPins(pins, key, from, to) } });
  };
  const shown = all ? takes : takes.slice(0, SHOWN_AT_FIRST);
  return (
    <Sheet
      title="Takes in their order"
      aside={
        pins.length > 0 && (
          <Button size="sm" variant="outline" onClick={() => onChange({ order: { ...plan.order, pinned: [] } }, 'All takes are free to move')}>
            <LockOpen size={14} aria-hidden /> Free all {pins.length}
          </Button>
        )
      }
    >
      <ol className="take-order">
        {shown.map((take, position) => {
          const changed = worked.time.takes[position]?.changed ?? [];
          const text = conditionWords(plan, take.condition).join(', ');
          const pinned = isPinned(take, position);
          return (
            <li key={`${takeKey(take)} ${position}`} className={changed.includes('station') ? 'new-station' : ''}>
              <span className="mono soft">{position + 1}</span>
              <span className="grow">
                {text}
                <span className="d-block small soft">
                  {position === 0 ? 'first: rig everything' : `change ${changed.map((kind) => factorName(plan, kind)).join(', ') || 'nothing'}`}
                </span>
              </span>
              <span className="text-nowrap">
                <SetupTapes setups={take.setups} chains={chains} plan={plan} width={34} />
              </span>
              <span className="mono small soft after">{durationText(worked.time.takes[position]?.startS ?? 0)}</span>
              <span className="text-nowrap">
                <Button
                  size="sm"
                  variant="plain"
                  className="icon"
                  disabled={position === 0}
                  aria-label={`Take ${position + 1} earlier`}
                  onClick={() => pin(take, position, position - 1)}
                >
                  <ArrowUp size={14} aria-hidden />
                </Button>
                <Button
                  size="sm"
                  variant="plain"
                  className="icon"
                  disabled={position === takes.length - 1}
                  aria-label={`Take ${position + 1} later`}
                  onClick={() => pin(take, position, position + 1)}
                >
                  <ArrowDown size={14} aria-hidden />
                </Button>
                <Button
                  size="sm"
                  variant="plain"
                  className="icon"
                  aria-pressed={pinned}
                  aria-label={`Lock take ${position + 1} in its place`}
                  onClick={() => pin(take, position, pinned ? null : position)}
                >
                  {pinned ? <Lock size={14} aria-hidden /> : <LockOpen size={14} aria-hidden />}
                </Button>
              </span>
            </li>
          );
        })}
      </ol>
      {!all && takes.length > SHOWN_AT_FIRST && (
        <Button size="sm" variant="outline" className="mt-2" onClick={() => setAll(true)}>
          Show all {takes.length}
        </Button>
      )}
    </Sheet>
  );
}
