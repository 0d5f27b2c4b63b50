import { type FaultSearch, faultSearchSchema } from '@marvet/core/domain/faultSearch';
import { searchState } from '@marvet/core/plan/fault/nextTest';
import { suspectsOf } from '@marvet/core/plan/fault/suspectsOf';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Field, KeptText } from '../../parts/fields.tsx';
import { Empty, Sheet } from '../../parts/states.tsx';
import { FaultTests } from './FaultTests.tsx';
import type { PlanPartProps } from './planPart.ts';
import { Suspects } from './Suspects.tsx';

const SHARES: [number, string][] = [
  [1, 'every time'],
  [0.75, 'three times of four'],
  [0.5, 'every other time'],
  [0.25, 'one time in four'],
  [0.1, 'one time in ten'],
];

/** A search for the guilty link of a chain: each test replaces half of those who may still be guilty. */
export function FaultPart({ plan, chains, items, onChange }: PlanPartProps) {
  const search = plan.faultSearch;
  const set = (next: FaultSearch | null, told?: string) => onChange({ faultSearch: next }, told);
  const begin = (chainId: string) => {
    const chain = chains.find((each) => each.id === chainId);
    if (!chain) return;
    set(faultSearchSchema.parse({ chainId, suspects: suspectsOf(chain, new Map(items.map((item) => [item.id, item]))) }));
  };
  if (!search) {
    return (
      <Sheet title="Find a fault">
        <Empty>
          <p>A crackle, hum or dropout, and a chain of ten links. Half of the suspects are replaced in each test, so that the guilty one is found in the fewest tests there are.</p>
          {chains.length === 0 ? (
            'Enter the chain in Kit first.'
          ) : (
            <Form.Select className="w-auto mx-auto" aria-label="Chain with the fault" value="" onChange={(event) => begin(event.target.value)}>
              <option value="">Which chain has it?</option>
              {chains.map((chain) => (
                <option key={chain.id} value={chain.id}>
                  {chain.name}
                </option>
              ))}
            </Form.Select>
          )}
        </Empty>
      </Sheet>
    );
  }
  const state = searchState(search);
  return (
    <div className="columns">
      <FaultTests search={search} state={state} onChange={set} />
      <Sheet
        title="The fault"
        aside={
          <Button size="sm" variant="outline" onClick={() => set(null, 'The search was put away')}>
            Start over
          </Button>
        }
      >
        <div className="stack">
          <KeptText label="What is heard" value={search.fault} maxLength={300} rows={2} onKeep={(fault) => set({ ...search, fault })} placeholder="crackle in the first seconds" />
          <Field
            label="How often it comes"
            help={state.tries > 1 ? `A test counts as quiet only after ${state.tries} quiet tries: then a fault that is still there would have shown with 95 % certainty.` : ''}
          >
            {(id) => (
              <Form.Select id={id} size="sm" value={search.seenShare} onChange={(event) => set({ ...search, seenShare: Number(event.target.value) })}>
                {SHARES.map(([share, name]) => (
                  <option key={share} value={share}>
                    {name}
                  </option>
                ))}
              </Form.Select>
            )}
          </Field>
          <Suspects search={search} state={state} onChange={set} />
        </div>
      </Sheet>
    </div>
  );
}
