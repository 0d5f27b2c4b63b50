import { EXTRA_KINDS, type WithinKind } from '@marvet/core/domain/factor';
import { newId } from '@marvet/core/domain/identity';
import type { Plan } from '@marvet/core/domain/plan';
import { SWITCHED_KIND, SWITCHES, type SwitchId, switchStates, thrown } from '@marvet/core/domain/switches';
import { lastSetups, type Take, type TakeSetup } from '@marvet/core/domain/take';
import { ToggleRight } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { TrialWords } from '../../data/trialData.ts';
import { SetupPicks } from './SetupPicks.tsx';
import type { FieldState } from './useFieldLog.ts';

interface SwitchesProps {
  take: Take;
  plan: Pick<Plan, 'factors'>;
  words: TrialWords;
  log: FieldState;
}

/** What of a plan can change in a moment while a take runs; a place, a text or a talker cannot. */
const THROWN_KINDS: readonly WithinKind[] = ['windscreen', ...EXTRA_KINDS.filter((kind) => kind !== SWITCHED_KIND && kind !== 'talker' && kind !== 'placement' && kind !== 'rig')];

/** What is switched while the take runs: one press, with its moment. What follows is another setup of the same take. */
export function Switches({ take, plan, words, log }: SwitchesProps) {
  const now = lastSetups(take);
  const [meant, setMeant] = useState<string[]>([]);
  const picked = meant.filter((id) => now.some((setup) => setup.id === id));
  const whose = picked.length > 0 ? now.filter(({ id }) => picked.includes(id)) : now;
  const write = (changed: WithinKind, of: (setup: TakeSetup) => { before: string | null; after: string }) =>
    void log.write((takes) => {
      // The setups as they are when the line is written: a switch that was thrown a moment ago counts.
      const current = lastSetups(takes.find(({ id }) => id === take.id) ?? take);
      const meantNow = current.filter((setup) => whose.some((each) => each.candidateId === setup.candidateId && (each.id === setup.id || setup.fromId === each.id)));
      return { kind: 'switch', takeId: take.id, changed, setups: (meantNow.length > 0 ? meantNow : current).map((setup) => ({ id: newId(), fromId: setup.id, ...of(setup) })) };
    });
  const throwSwitch = (id: SwitchId, on: boolean) => write(SWITCHED_KIND, (setup) => thrown(setup.levels[SWITCHED_KIND], id, on));
  const states = whose.map((setup) => switchStates(setup.levels[SWITCHED_KIND]));
  const others = THROWN_KINDS.flatMap((kind) => {
    const levels = plan.factors.find((factor) => factor.kind === kind)?.levels ?? [];
    const current = new Set(whose.map((setup) => setup.levels[kind] ?? take.condition[kind]));
    return levels.filter(({ id }) => !(current.size === 1 && current.has(id))).map((level) => ({ kind, level }));
  });
  return (
    <details className="switches">
      <summary>
        <ToggleRight size={18} aria-hidden /> Switch something while it rolls
      </summary>
      <div className="stack">
        {now.length > 1 && (
          <div className="row-line">
            <span className="small soft">{picked.length === 0 ? 'on all' : 'on'}</span>
            <SetupPicks
              take={{ ...take, setups: now }}
              words={words}
              picked={picked}
              says="It is switched on"
              onToggle={(id) => setMeant(picked.includes(id) ? picked.filter((each) => each !== id) : [...picked, id])}
            />
          </div>
        )}
        <div className="switch-grid">
          {SWITCHES.map(({ id, on, off }) => {
            const isOn = states.every((state) => state[id] === true);
            const isOff = states.every((state) => state[id] === false);
            return (
              <fieldset key={id} aria-label={on.replace(/ (on|in)$/, '')}>
                <Button variant={isOff ? 'dark-ink' : 'outline'} aria-pressed={isOff} disabled={isOff} onClick={() => throwSwitch(id, false)}>
                  {off}
                </Button>
                <Button variant={isOn ? 'dark-ink' : 'outline'} aria-pressed={isOn} disabled={isOn} onClick={() => throwSwitch(id, true)}>
                  {on}
                </Button>
              </fieldset>
            );
          })}
        </div>
        {others.length > 0 && (
          <div className="walk-chips">
            {others.map(({ kind, level }) => (
              <Button key={`${kind} ${level.id}`} variant="outline" onClick={() => write(kind, () => ({ before: null, after: level.id }))}>
                {words.kindName(kind)}: {level.label}
              </Button>
            ))}
          </div>
        )}
      </div>
    </details>
  );
}
