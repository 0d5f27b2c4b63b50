import type { VerdictView } from '@marvet/core/contract/verdict';
import { aheadText, turnText } from '@marvet/core/decide/doubt/sayDoubt';
import { turnOvers } from '@marvet/core/decide/doubt/turnOver';
import { useMemo } from 'react';

/** What would put another one first: the smallest change of one weight, of one value, of one limit; and what the lead is made of. */
export function TurnedOver({ view, nameOf }: { view: VerdictView; nameOf(candidateId: string): string }) {
  const { all, ahead } = useMemo(() => turnOvers(view.criteria, view.rows ?? []), [view]);
  const first = view.rows?.find((row) => row.rank === 1);
  if (!first || !ahead) return null;
  const shared = (view.rows ?? []).filter((row) => row.rank === 1).length > 1;
  return (
    <section className="mt-3" aria-label="What would turn it over">
      <h3 className="h6 mb-1">What would turn it over</h3>
      <ul className="mb-1">
        {shared && <li>The first place is shared: anything does.</li>}
        {all.map((turn) => (
          <li key={`${turn.kind} ${turn.candidateId}`}>{turnText(turn, view.criteria, nameOf, first.candidate.name)}</li>
        ))}
        {all.length === 0 && !shared && <li>No one weight, value or limit does it alone.</li>}
      </ul>
      {ahead.map(({ candidateId, byCriterion }) => (
        <div key={candidateId} className="small soft">
          {first.candidate.name} against {nameOf(candidateId)}: {aheadText(byCriterion, view.criteria)}.
        </div>
      ))}
    </section>
  );
}
