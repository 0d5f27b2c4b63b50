import { togetherSums } from '@marvet/core/plan/together';
import { X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { KeptNumber } from '../../parts/fields.tsx';
import { Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { PerFactor } from './PerFactor.tsx';
import type { PlanPartProps } from './planPart.ts';

/** Which candidates share a take, what that saves in takes, and what it costs in closeness. */
export function Together(props: PlanPartProps) {
  const { plan, chains, worked, onChange } = props;
  const limits = plan.togetherLimits;
  const setLimits = (patch: Partial<typeof limits>, told?: string) => onChange({ togetherLimits: { ...limits, ...patch } }, told);
  const nameOf = (id: string) => chains.find((chain) => chain.id === id)?.name ?? 'a candidate that is gone';
  const sums = worked ? togetherSums(worked.built.together.groups, worked.built.conditions) : null;
  return (
    <Sheet
      title="Recorded together"
      aside={
        <Form.Check
          type="switch"
          id="together"
          label="Candidates are recorded together, in one take"
          checked={plan.together}
          onChange={(event) => onChange({ together: event.target.checked })}
        />
      }
    >
      {plan.together && worked && sums && (
        <>
          <div className="groups">
            {worked.built.together.groups.map((group, index) => (
              <fieldset key={group.join()} className="group">
                <legend>take {index + 1} of a condition</legend>
                {group.map((id) => {
                  const chain = chains.find((each) => each.id === id);
                  return (
                    chain && (
                      <span key={id} className="text-nowrap">
                        <TapeMark tape={chain.tape} name="" width={38} /> {chain.name}
                      </span>
                    )
                  );
                })}
              </fieldset>
            ))}
          </div>
          <p className="mt-2 mb-1">
            {sums.takesTogether} takes instead of {sums.takesApart}.{' '}
            {sums.apartPairs.length === 0
              ? 'All share words and moment.'
              : `Only across takes, so with other words spoken: ${sums.apartPairs.map(([a, b]) => `${nameOf(a)} and ${nameOf(b)}`).join('; ')}.`}
          </p>
          {worked.built.together.bars.length > 0 && <p className="small soft mb-1">{[...new Set(worked.built.together.bars.map((bar) => bar.why))].join('. ')}.</p>}
          <div className="row-line align-items-end mt-2">
            <KeptNumber label="Tracks of the recorder" size="sm" min={1} max={64} value={limits.tracks} onKeep={(tracks) => setLimits({ tracks: Math.round(tracks ?? 8) })} />
            <KeptNumber label="Microphones on one chest" size="sm" min={1} max={12} value={limits.onChest} onKeep={(onChest) => setLimits({ onChest: Math.round(onChest ?? 4) })} />
            <NewApart {...{ plan, chains }} onAdd={(pair) => setLimits({ apart: [...limits.apart, pair] })} />
          </div>
          {limits.apart.length > 0 && (
            <div className="row-line mt-2">
              <span className="small soft">Kept apart:</span>
              {limits.apart.map(([a, b]) => (
                <span key={`${a} ${b}`} className="chip">
                  {nameOf(a)} and {nameOf(b)}
                  <Button
                    size="sm"
                    variant="plain"
                    className="icon"
                    aria-label={`Let ${nameOf(a)} and ${nameOf(b)} share a take`}
                    onClick={() => setLimits({ apart: limits.apart.filter((pair) => pair[0] !== a || pair[1] !== b) }, `${nameOf(a)} and ${nameOf(b)} may share a take`)}
                  >
                    <X size={12} aria-hidden />
                  </Button>
                </span>
              ))}
            </div>
          )}
        </>
      )}
      {!plan.together && <p className="mb-1">Each candidate has takes of its own: other words, another minute. Use it where microphones would disturb each other.</p>}
      <PerFactor {...props} />
      <p className="small soft mb-0 mt-2">
        A talker has one distance, place and voice at a time, so those are always recorded one after the other. A chain with a transmitter counts as worn on the chest.
      </p>
    </Sheet>
  );
}

/** Two candidates that would disturb each other. */
function NewApart({ plan, chains, onAdd }: Pick<PlanPartProps, 'plan' | 'chains'> & { onAdd: (pair: [string, string]) => void }) {
  const [first, setFirst] = useState('');
  const known = (a: string, b: string) => plan.togetherLimits.apart.some((pair) => pair.includes(a) && pair.includes(b));
  return (
    <div className="row-line">
      <Form.Select size="sm" className="w-auto" aria-label="Candidate that disturbs" value={first} onChange={(event) => setFirst(event.target.value)}>
        <option value="">disturbs</option>
        {chains.map((chain) => (
          <option key={chain.id} value={chain.id}>
            {chain.name}
          </option>
        ))}
      </Form.Select>
      <Form.Select
        size="sm"
        className="w-auto"
        aria-label="Candidate that is disturbed"
        value=""
        disabled={!first}
        onChange={(event) => {
          if (event.target.value) onAdd([first, event.target.value]);
          setFirst('');
        }}
      >
        <option value="">with</option>
        {chains
          .filter((chain) => chain.id !== first && !known(chain.id, first))
          .map((chain) => (
            <option key={chain.id} value={chain.id}>
              {chain.name}
            </option>
          ))}
      </Form.Select>
    </div>
  );
}
