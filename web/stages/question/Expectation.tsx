import type { Trial } from '@marvet/core/domain/trial';
import { Lock } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useChainsQuery } from '../../data/records.ts';
import { useSealExpectationMutation } from '../../data/trials.ts';
import { dateText } from '../../parts/dateText.ts';
import { Field } from '../../parts/fields.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';

/** The winner that each person expects before anyone listens. Sealed, it is not shown again before the verdict. */
export function Expectation({ trial }: { trial: Trial }) {
  const { data: chains } = useChainsQuery(trial.id);
  const [seal, { error, isLoading }] = useSealExpectationMutation();
  const [person, setPerson] = useState('');
  const [candidateId, setCandidateId] = useState('');
  const [reason, setReason] = useState('');
  const candidates = chains?.filter((chain) => chain.candidate) ?? [];
  const nameOf = (id: string) => candidates.find((chain) => chain.id === id)?.name ?? 'a candidate that is gone';
  const open = trial.verdictOpenedAtMs !== null;
  return (
    <Sheet title="Expected winner">
      {trial.expectations.map(({ person: who, sealedAtMs, revealed }) => (
        <p key={who} className="mb-2">
          <Lock size={15} aria-hidden /> <b>{who}</b>:{' '}
          {revealed ? (
            <>
              {nameOf(revealed.candidateId)}. <span className="soft">{revealed.reason}</span>
            </>
          ) : (
            `sealed on ${dateText(sealedAtMs)}, shown beside the verdict.`
          )}
        </p>
      ))}
      {open && trial.expectations.length === 0 && <div className="soft">Nobody wrote down whom they expected to win.</div>}
      {!open && candidates.length === 0 && <div className="soft">Enter candidates in Kit first. Then each writes down who they think will win, before anyone listens.</div>}
      {!open && candidates.length > 0 && (
        <Form
          className="stack"
          onSubmit={(event) => {
            event.preventDefault();
            void seal({ id: trial.id, draft: { person: person.trim(), candidateId, reason } }).then(({ error: failed }) => {
              if (failed) return;
              setPerson('');
              setCandidateId('');
              setReason('');
            });
          }}
        >
          <Field label="Who expects it?" help={trial.progress.done === 0 ? 'Whoever sealed one already may seal another until the first take is recorded.' : ''}>
            {(id) => <Form.Control id={id} value={person} maxLength={120} placeholder="mixer, assistant, director" onChange={(event) => setPerson(event.target.value)} />}
          </Field>
          <Field label="Who will win?" help="Expectation bends ears. Sealed now, it stands beside the result.">
            {(id) => (
              <Form.Select id={id} value={candidateId} onChange={(event) => setCandidateId(event.target.value)}>
                <option value="">Choose</option>
                {candidates.map((chain) => (
                  <option key={chain.id} value={chain.id}>
                    {chain.name}
                  </option>
                ))}
              </Form.Select>
            )}
          </Field>
          <Field label="Why">{(id) => <Form.Control id={id} value={reason} maxLength={4000} onChange={(event) => setReason(event.target.value)} />}</Field>
          <Trouble error={error} />
          <Button type="submit" variant="outline" disabled={!candidateId || !person.trim() || isLoading}>
            Seal it
          </Button>
        </Form>
      )}
    </Sheet>
  );
}
