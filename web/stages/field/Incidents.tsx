import type { Take } from '@marvet/core/domain/take';
import { type IncidentSum, incidentBelongs, incidentNext, incidentSums, incidentWords } from '@marvet/core/radio/incidents';
import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TrialWords } from '../../data/trialData.ts';
import { Field } from '../../parts/fields.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { SetupPicks } from './SetupPicks.tsx';
import type { FieldState } from './useFieldLog.ts';

interface IncidentsProps {
  take: Take;
  words: TrialWords;
  log: FieldState;
}

/** What was odd: written down once, tried again, counted, and told to be repeatable or random. */
export function Incidents({ take, words, log }: IncidentsProps) {
  const sums = useMemo(() => incidentSums(log.takes), [log.takes]);
  return (
    <details className="incidents" open={sums.length > 0}>
      <summary>
        Incidents <span className="mono small">{sums.length > 0 ? sums.length : ''}</span>
      </summary>
      <div className="stack mt-2">
        {sums.map((sum) => (
          <IncidentRow key={sum.incident.id} sum={sum} take={take} words={words} log={log} />
        ))}
        <NewIncident take={take} words={words} log={log} />
      </div>
    </details>
  );
}

const NEXT_WORDS = {
  'again here': 'Next: the same spot, the same again.',
  'others here': 'Next: the same spot, the others there too.',
  elsewhere: 'Next: the same ones at another place.',
} as const;

function IncidentRow({ sum, take, words, log }: IncidentsProps & { sum: IncidentSum }) {
  const { incident, candidateIds, stationId } = sum;
  const letters = candidateIds.map((id) => words.chains.get(id)?.tape.letters ?? '').join(', ');
  const notice = useNotice();
  const tried = take.tried.find(({ incidentId }) => incidentId === incident.id);
  const all = [...words.chains.values()].filter(({ candidate }) => candidate).map(({ id }) => id);
  const tell = (setupId: string, came: boolean) =>
    void log.write((takes) => {
      const known = takes.find(({ id }) => id === take.id)?.tried.find(({ incidentId }) => incidentId === incident.id);
      return { kind: 'tried', takeId: take.id, incidentId: incident.id, ...moved(known ?? { cameSetupIds: [], stayedSetupIds: [] }, setupId, came) };
    });
  const takeBack = () => {
    const { id: incidentId, heard, wasOn, setupIds } = incident;
    void log.write({ kind: 'untold', takeId: sum.takeId, incidentId });
    notice(`${heard} was taken back`, () => void log.write({ kind: 'incident', takeId: sum.takeId, incidentId, heard, wasOn, setupIds }));
  };
  return (
    <article className="incident" aria-label={incident.heard}>
      <div className="row-line apart flex-nowrap align-items-start">
        <span>
          <b>{incident.heard}</b> <span className="small soft">{[letters, words.label('station', stationId), incident.wasOn].filter(Boolean).join(', ')}</span>
        </span>
        <Button size="sm" variant="plain" className="icon" aria-label={`Take back: ${incident.heard}`} onClick={takeBack}>
          <X size={14} aria-hidden />
        </Button>
      </div>
      <p className="small mb-1">
        {incidentWords(sum)}. {incidentBelongs(sum).map(({ to, p }) => `It goes with the ${to} (Fisher’s test, ${p < 0.01 ? 'under 1' : Math.round(100 * p)} in 100 by chance). `)}
        {NEXT_WORDS[incidentNext(sum, all)]}
      </p>
      {sum.takeId !== take.id && (
        <fieldset className="row-line" aria-label={`${incident.heard}, in this take`}>
          {take.setups.map((setup) => {
            const chain = words.chains.get(setup.candidateId);
            const name = [chain?.name, words.setup(setup)].filter(Boolean).join(', ');
            return (
              chain && (
                <span key={setup.id} className="tried">
                  <TapeMark tape={chain.tape} name="" width={44} />
                  <Button
                    size="sm"
                    variant="outline"
                    aria-pressed={tried?.cameSetupIds.includes(setup.id) ?? false}
                    aria-label={`It came on ${name}`}
                    onClick={() => tell(setup.id, true)}
                  >
                    came
                  </Button>
                  <Button
                    size="sm"
                    variant="outline"
                    aria-pressed={tried?.stayedSetupIds.includes(setup.id) ?? false}
                    aria-label={`It stayed away on ${name}`}
                    onClick={() => tell(setup.id, false)}
                  >
                    away
                  </Button>
                </span>
              )
            );
          })}
        </fieldset>
      )}
    </article>
  );
}

/** A setup put where it belongs; pressed again it is in neither. */
function moved({ cameSetupIds, stayedSetupIds }: { cameSetupIds: readonly string[]; stayedSetupIds: readonly string[] }, setupId: string, came: boolean) {
  const was = (came ? cameSetupIds : stayedSetupIds).includes(setupId);
  const without = (ids: readonly string[]) => ids.filter((id) => id !== setupId);
  return {
    cameSetupIds: came && !was ? [...without(cameSetupIds), setupId] : without(cameSetupIds),
    stayedSetupIds: !came && !was ? [...without(stayedSetupIds), setupId] : without(stayedSetupIds),
  };
}

function NewIncident({ take, words, log }: IncidentsProps) {
  const [heard, setHeard] = useState('');
  const [wasOn, setWasOn] = useState('');
  const [setupIds, setSetupIds] = useState<string[]>([]);
  const write = () => {
    const text = heard.trim();
    if (text === '') return;
    void log.write({ kind: 'incident', takeId: take.id, heard: text, wasOn: wasOn.trim(), setupIds: setupIds.filter((id) => take.setups.some((setup) => setup.id === id)) });
    setHeard('');
    setWasOn('');
    setSetupIds([]);
  };
  return (
    <form
      className="stack"
      onSubmit={(event) => {
        event.preventDefault();
        write();
      }}
    >
      <Field label="Something odd was heard">
        {(id) => <Form.Control id={id} value={heard} maxLength={200} placeholder="crunch at the start of phrases" onChange={(event) => setHeard(event.target.value)} />}
      </Field>
      <Field label="What was on">
        {(id) => <Form.Control id={id} value={wasOn} maxLength={200} placeholder="limiter, power line overhead" onChange={(event) => setWasOn(event.target.value)} />}
      </Field>
      <div className="row-line">
        <SetupPicks
          take={take}
          words={words}
          picked={setupIds}
          says="It was on"
          onToggle={(setupId) => setSetupIds(setupIds.includes(setupId) ? setupIds.filter((id) => id !== setupId) : [...setupIds, setupId])}
        />
        <Button type="submit" variant="outline" className="ms-auto" disabled={heard.trim() === ''}>
          Write it down
        </Button>
      </div>
    </form>
  );
}
