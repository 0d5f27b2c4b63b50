import type { VerdictRow } from '@marvet/core/decide/verdict';
import type { Trial } from '@marvet/core/domain/trial';
import { useTrialId, useTrialWords } from '../../app/trialData.ts';
import { Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** What was expected, beside what came out. */
export function ExpectationBeside({ trial, rows }: { trial: Trial; rows: VerdictRow[] }) {
  const words = useTrialWords(useTrialId());
  const revealed = trial.expectation?.revealed;
  const expected = rows.find((row) => row.candidate.id === revealed?.candidateId);
  const winners = rows.filter((row) => row.rank === 1);
  const mark = (id: string) => {
    const chain = words.chains.get(id);
    return chain ? <TapeMark tape={chain.tape} name="" width={56} /> : null;
  };
  return (
    <Sheet title="Expected and found">
      {!revealed || !expected ? (
        <div className="soft">Nobody wrote down whom they expected to win. Do it before the next trial: expectation bends ears.</div>
      ) : (
        <dl className="facts">
          <dt>Expected</dt>
          <dd>
            {mark(expected.candidate.id)} {expected.candidate.name}
            <div className="small soft fw-normal">{revealed.reason}</div>
          </dd>
          <dt>Found</dt>
          <dd>
            {winners.map((winner) => (
              <div key={winner.candidate.id}>
                {mark(winner.candidate.id)} {winner.candidate.name}
              </div>
            ))}
            {winners.length === 0 && 'nobody could be ranked'}
          </dd>
          <dt>The expected one</dt>
          <dd>{expected.rank ? (expected.rank === 1 ? 'won' : `came ${ordinal(expected.rank)} of ${rows.length}`) : 'was ruled out or has no score'}</dd>
        </dl>
      )}
    </Sheet>
  );
}

function ordinal(rank: number): string {
  const rule = new Intl.PluralRules('en', { type: 'ordinal' }).select(rank);
  return `${rank}${{ one: 'st', two: 'nd', few: 'rd', other: 'th', zero: 'th', many: 'th' }[rule]}`;
}
