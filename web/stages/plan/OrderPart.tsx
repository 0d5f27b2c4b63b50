import type { OrderRules } from '@marvet/core/domain/plan';
import { candidatesOf } from '@marvet/core/domain/take';
import Form from 'react-bootstrap/Form';
import { Sheet } from '../../parts/states.tsx';
import { ChangeTimes } from './ChangeTimes.tsx';
import type { PlanPartProps } from './planPart.ts';
import { TakeOrderList } from './TakeOrderList.tsx';

const BLOCKS: [OrderRules['blockedBy'], string][] = [
  ['none', 'quickest'],
  ['station', 'each station in one visit'],
  ['daylight', 'stations that need daylight first; last when the day starts before sunrise'],
];

/** In which order takes are done: what it keeps to, what changes cost, and the rows themselves. */
export function OrderPart(props: PlanPartProps) {
  const { plan, worked, chains, onChange } = props;
  // Limits of tracks and chest leave takes that do not carry all candidates; in those one can go first.
  const alone = !!worked && worked.built.takes.length > 0 && worked.built.takes.every((take) => candidatesOf(take).length === chains.length);
  const order = (patch: Partial<OrderRules>) => onChange({ order: { ...plan.order, ...patch } });
  return (
    <>
      <div className="columns">
        <ChangeTimes {...props} />
        <Sheet title="What the order keeps to">
          <div role="radiogroup" aria-label="Blocks" className="mb-2">
            {BLOCKS.map(([id, name]) => (
              <Form.Check key={id} type="radio" name="blocks" id={`blocks-${id}`} label={name} checked={plan.order.blockedBy === id} onChange={() => order({ blockedBy: id })} />
            ))}
          </div>
          <Form.Check
            type="switch"
            id="counterbalanced"
            label="Each candidate goes first in turn"
            checked={plan.order.counterbalanced}
            disabled={alone}
            onChange={(event) => order({ counterbalanced: event.target.checked })}
          />
          <p className="small soft mb-0 mt-2">
            {alone
              ? 'Every take has all candidates in it, so none is ever first.'
              : 'Testing all of one and then all of the other lets the hour judge. It costs changes of the rig.'}
          </p>
        </Sheet>
      </div>
      <TakeOrderList {...props} />
    </>
  );
}
