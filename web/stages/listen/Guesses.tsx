import type { Round } from '@marvet/core/domain/round';
import type { Expectation } from '@marvet/core/domain/trial';
import { guessedRight, guessText } from '@marvet/core/listen/guess';
import { expectationText, heardAsExpected } from '@marvet/core/listen/guessExpected';

interface GuessesProps {
  round: Round;
  expectations: readonly Expectation[];
  candidateOf(recordingId: string): string | undefined;
  nameOf(candidateId: string): string;
}

/** How well listeners guessed which clip was which, against chance, and how they scored what they took for their favourite; nothing where nobody did. */
export function Guesses({ round, expectations, candidateOf, nameOf }: GuessesProps) {
  const guesses = round.listeners.flatMap(({ id, name, guess, letters }) => (guess && letters ? [{ id, name, ...guessedRight(guess, letters, candidateOf) }] : []));
  if (guesses.length === 0) return null;
  const open = expectations.flatMap(({ person, revealed }) => (revealed ? [{ person, candidateId: revealed.candidateId }] : []));
  const heard = heardAsExpected(round.listeners, open, candidateOf);
  return (
    <section className="mb-3 small" aria-label={`Guesses in ${round.title}`}>
      <p className="mb-1">
        <b>Which is which:</b> {guessText(guesses)}
        {guesses.length > 1 && <span className="soft"> {guesses.map(({ name, right, of }) => `${name} ${right} of ${of}`).join(', ')}.</span>}
      </p>
      {heard.length > 0 && (
        <p className="mb-0">
          <b>Against what was expected:</b>{' '}
          {heard.map(
            ({ name, candidateId, takenFor, others, was, mistaken }) =>
              `${name} expected ${nameOf(candidateId)} to win and gave ${takenFor.toFixed(1)} points to the clip taken for it, ${others.toFixed(1)} to the others on average${mistaken ? `; the clip that was it got ${was.toFixed(1)}` : ', and was right in which it was'}. `,
          )}
          {expectationText(heard)}
        </p>
      )}
    </section>
  );
}
