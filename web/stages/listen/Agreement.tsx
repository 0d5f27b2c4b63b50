import type { Criterion } from '@marvet/core/domain/criterion';
import type { Round } from '@marvet/core/domain/round';
import { agreementOf, agreementText } from '@marvet/core/listen/sayAgreement';
import { useMemo } from 'react';

/** How far those who scored the clips of a round agree, on each criterion; nothing while fewer than two are done. */
export function Agreement({ round, criteria }: { round: Round; criteria: readonly Criterion[] }) {
  const heard = round.listeners.filter(({ letters }) => letters !== null);
  const found = useMemo(() => criteria.map((criterion) => ({ criterion, agreement: agreementOf(round, criterion.id) })), [round, criteria]);
  if (heard.length < 2) return null;
  return (
    <section className="mb-3" aria-label={`Agreement of listeners in ${round.title}`}>
      {found.map(({ criterion, agreement }) => (
        <p key={criterion.id} className="small mb-1">
          <b>{criterion.name}:</b>{' '}
          {agreementText(
            agreement,
            heard.map(({ name }) => name),
          )}
        </p>
      ))}
    </section>
  );
}
