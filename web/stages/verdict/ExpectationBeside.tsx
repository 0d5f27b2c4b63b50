import type { VerdictRow } from '@marvet/core/decide/verdict';
import type { Trial } from '@marvet/core/domain/trial';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** What each person expected, beside what came out. */
export function ExpectationBeside({ trial, rows }: { trial: Trial; rows: VerdictRow[] }) {
  const words = useTrialWords(useTrialId());
  const winners = rows.filter((row) => row.rank === 1);
  const mark = (id: string) => {
    const chain = words.chains.get(id);
    return chain ? <TapeMark tape={chain.tape} name="" width={56} /> : null;
  };
  const expected = trial.expectations.flatMap(({ person, revealed }) => {
    const row = rows.find((each) => each.candidate.id === revealed?.candidateId);
    return revealed && row ? [{ person, reason: revealed.reason, row }] : [];
  });
  return (
    <Sheet title="Expected and found">
      {expected.length === 0 ? (
        <div className="soft">Nobody wrote down whom they expected to win. Do it before the next trial: expectation bends ears.</div>
      ) : (
        <dl className="facts">
          {expected.map(({ person, reason, row }) => (
            <div key={person} className="fact">
              <dt>{person} expected</dt>
              <dd>
                {mark(row.candidate.id)} {row.candidate.name},{' '}
                {row.rank ? (row.rank === 1 ? 'which won' : `which came ${ordinal(row.rank)} of ${rows.length}`) : 'which was ruled out or has no score'}
                <div className="small soft fw-normal">{reason}</div>
              </dd>
            </div>
          ))}
          <div className="fact">
            <dt>Found</dt>
            <dd>
              {winners.map((winner) => (
                <div key={winner.candidate.id}>
                  {mark(winner.candidate.id)} {winner.candidate.name}
                </div>
              ))}
              {winners.length === 0 && 'nobody could be ranked'}
            </dd>
          </div>
        </dl>
      )}
    </Sheet>
  );
}

function ordinal(rank: number): string {
  const rule = new Intl.PluralRules('en', { type: 'ordinal' }).select(rank);
  return `${rank}${{ one: 'st', two: 'nd', few: 'rd', other: 'th', zero: 'th', many: 'th' }[rule]}`;
}
