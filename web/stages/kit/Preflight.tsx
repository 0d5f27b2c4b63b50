import { batteriesOfDay } from '@marvet/core/chain/burden';
import { type Check, preflightChecks } from '@marvet/core/chain/preflight';
import type { Chain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import type { PreflightTick } from '@marvet/core/domain/preflight';
import { planTime } from '@marvet/core/plan/time';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { keep, kept } from '../../data/keep.ts';
import { usePreflightQuery, useScriptsQuery, useTickPreflightMutation } from '../../data/records.ts';
import { usePlanQuery, useTakesQuery } from '../../data/work.ts';
import { dateTimeText } from '../../parts/dateText.ts';
import { Field } from '../../parts/fields.tsx';
import { Empty, Loaded, Sheet, Trouble } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

const NOBODY = { name: '' };

/** What to check on each unit before going out, from the settings of the chains; who ticked it and when. */
export function Preflight({ trialId, chains, items }: { trialId: string; chains: Chain[]; items: ReadonlyMap<string, Item> }) {
  const ticks = usePreflightQuery(trialId);
  const takes = useTakesQuery(trialId);
  const plan = usePlanQuery(trialId);
  const scripts = useScriptsQuery(trialId);
  const [tick, { error }] = useTickPreflightMutation();
  const [person, setPerson] = useState(() => kept('person', NOBODY).name);
  return (
    <Loaded of={[ticks, takes, plan, scripts]}>
      {() => {
        const planMin = planTime(takes.data!, plan.data!, (id) => scripts.data!.find((script) => script.id === id)?.lengthS ?? 10).totalS / 60;
        const checks = preflightChecks(chains, items, planMin);
        const byKey = new Map(ticks.data!.map((each) => [each.key, each]));
        const units = [...new Set(checks.map((check) => check.unit))];
        const open = checks.filter((check) => !byKey.has(check.key));
        const set = (keys: string[], ticked: boolean) => void tick({ trialId, keys, ticked, person: person.trim() || 'somebody' });
        return (
          <Sheet
            title="Pre-flight"
            aside={
              <span className="small" role="status">
                {open.length === 0 && checks.length > 0 ? 'All is checked.' : `${open.length} of ${checks.length} open; Field names what is not ticked.`}
              </span>
            }
          >
            <Trouble error={error} />
            {checks.length === 0 ? (
              <Empty>The list comes from the candidates and their settings. Enter chains first; what is set there is what is checked here.</Empty>
            ) : (
              <>
                <div className="row-line align-items-end mb-3">
                  <Field label="Ticked by">
                    {(id) => (
                      <Form.Control
                        id={id}
                        size="sm"
                        value={person}
                        maxLength={120}
                        placeholder="your name"
                        onChange={(event) => {
                          setPerson(event.target.value);
                          keep('person', { name: event.target.value });
                        }}
                      />
                    )}
                  </Field>
                  <span className="small soft mb-1">{dayText(chains, items, planMin)}</span>
                </div>
                <div className="preflight">
                  {units.map((unit) => (
                    <Unit key={unit} unit={unit} checks={checks.filter((check) => check.unit === unit)} ticks={byKey} chains={chains} onSet={set} />
                  ))}
                </div>
              </>
            )}
          </Sheet>
        );
      }}
    </Loaded>
  );
}

interface UnitProps {
  unit: string;
  checks: Check[];
  ticks: ReadonlyMap<string, PreflightTick>;
  chains: Chain[];
  onSet: (keys: string[], ticked: boolean) => void;
}

function Unit({ unit, checks, ticks, chains, onSet }: UnitProps) {
  const open = checks.filter((check) => !ticks.has(check.key)).map((check) => check.key);
  const users = chains.filter((chain) => checks[0]?.chainIds.includes(chain.id));
  return (
    <fieldset className="unit">
      <legend>
        {unit}{' '}
        {users.map((chain) => (
          <TapeMark key={chain.id} tape={chain.tape} name="" width={30} />
        ))}
      </legend>
      {checks.map(({ key, text }) => {
        const tick = ticks.get(key);
        return (
          <Form.Check
            key={key}
            id={`check-${key}`}
            checked={!!tick}
            onChange={(event) => onSet([key], event.target.checked)}
            label={
              <>
                {text}
                {tick && (
                  <span className="d-block small soft">
                    {tick.person}, {dateTimeText(tick.atMs)}
                  </span>
                )}
              </>
            }
          />
        );
      })}
      {open.length > 1 && (
        <Button size="sm" variant="plain" onClick={() => onSet(open, true)}>
          Tick all {open.length}
        </Button>
      )}
    </fieldset>
  );
}

function dayText(chains: readonly Chain[], items: ReadonlyMap<string, Item>, planMin: number): string {
  if (planMin <= 0) return '';
  const counts = new Map<string, number>();
  for (const chain of chains) for (const { type, count } of batteriesOfDay(chain, items, planMin / 60).batteries) counts.set(type, (counts.get(type) ?? 0) + count);
  const pack = [...counts].map(([type, count]) => `${count} ${type}`).join(', ');
  return `The plan takes ${Math.ceil(planMin)} min. Batteries for it, each candidate by itself: ${pack || 'none'}.`;
}
