import type { Round } from '@marvet/core/domain/round';
import { guessedRight, guessText } from '@marvet/core/listen/guess';

interface GuessesProps {
  round: Round;
  candidateOf(recordingId: string): string | undefined;
}

/** How well listeners guessed which clip was which, each and all, against chance; nothing where nobody did. */
export function Guesses({ round, candidateOf }: GuessesProps) {
  const guesses = round.listeners.flatMap(({ id, name, guess, letters }) => (guess && letters ? [{ id, name, ...guessedRight(guess, letters, candidateOf) }] : []));
  if (guesses.length === 0) return null;
  return (
    <section className="mb-3 small" aria-label={`Guesses in ${round.title}`}>
      <b>Which is which:</b> {guessText(guesses)}
      {guesses.length > 1 && <span className="soft"> {guesses.map(({ name, right, of }) => `${name} ${right} of ${of}`).join(', ')}.</span>}
    </section>
  );
}
