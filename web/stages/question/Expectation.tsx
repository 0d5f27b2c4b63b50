import type { Trial } from '@marvet/core/domain/trial';
import { Lock } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useChainsQuery } from '../../app/api/records.ts';
import { useSealExpectationMutation } from '../../app/api/trials.ts';
import { dateText } from '../../parts/dateText.ts';
import { Field } from '../../parts/fields.tsx';
import { Sheet, Trouble } from '../../parts/states.tsx';

/** The winner that is expected before anyone listens. Sealed, it is not shown again before the verdict. */
export function Expectation({ trial }: { trial: Trial }) {
  const { data: chains } = useChainsQuery(trial.id);
  const [seal, { error, isLoading }] = useSealExpectationMutation();
  const [candidateId, setCandidateId] = useState('');
  const [reason, setReason] = useState('');
  const [again, setAgain] = useState(false);
  const candidates = chains?.filter((chain) => chain.candidate) ?? [];
  const { expectation } = trial;
  if (expectation && !again) {
    const mayChange = trial.progress.done === 0 && !trial.verdictOpenedAtMs;
    const winner = candidates.find((chain) => chain.id === expectation.revealed?.candidateId);
    return (
      <Sheet title="Expected winner">
        <p className="mb-2">
          <Lock size={15} aria-hidden />{' '}
          {expectation.revealed ? (
            <>
              {winner?.name ?? 'A candidate that is gone'}. <span className="soft">{expectation.revealed.reason}</span>
            </>
          ) : (
            `Sealed on ${dateText(expectation.sealedAtMs)}. It is shown beside the verdict.`
          )}
        </p>
        {mayChange && (
          <Button size="sm" variant="outline" onClick={() => setAgain(true)}>
            Seal another
          </Button>
        )}
      </Sheet>
    );
  }
  if (candidates.length === 0) {
    return (
      <Sheet title="Expected winner">
        <div className="soft">Enter candidates in Kit first. Then write down who you think will win, before anyone listens.</div>
      </Sheet>
    );
  }
  return (
    <Sheet title="Expected winner">
      <Form
        className="stack"
        onSubmit={(event) => {
          event.preventDefault();
          void seal({ id: trial.id, draft: { candidateId, reason } }).then(({ error: failed }) => !failed && setAgain(false));
        }}
      >
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
        <Button type="submit" variant="outline" disabled={!candidateId || isLoading}>
          Seal it
        </Button>
      </Form>
    </Sheet>
  );
}
