import type { VerdictRow } from '@marvet/core/decide/verdict';
import { criterionUnit } from '@marvet/core/decide/verdictCsv';
import type { Criterion } from '@marvet/core/domain/criterion';
import { plainNumber } from '@marvet/core/measure/catalogue';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** Candidates by rank: score as a tick, and as a band what it could still become with what is missing. */
export function Ranking({ rows, criteria }: { rows: VerdictRow[]; criteria: Criterion[] }) {
  const words = useTrialWords(useTrialId());
  const nameOf = (id: string) => criteria.find((criterion) => criterion.id === id)?.name ?? 'a criterion';
  const gaps = rows.some((row) => row.missing.length > 0);
  return (
    <>
      {rows.map((row) => {
        const chain = words.chains.get(row.candidate.id);
        return (
          <div key={row.candidate.id} className="rank-row keep">
            <span className="place mono">{row.rank ?? '–'}</span>
            {chain ? <TapeMark tape={chain.tape} name="" width={56} /> : <span />}
            <b>{row.candidate.name}</b>
            <div className="band" aria-hidden>
              {row.lowest !== null && row.highest !== null && row.score !== null && (
                <>
                  {row.missing.length > 0 && <span className="doubt" style={{ left: `${row.lowest}%`, width: `${Math.max(1, row.highest - row.lowest)}%` }} />}
                  <span className="tick" style={{ left: `${row.score}%` }} />
                </>
              )}
            </div>
            <span className="score">{row.score === null ? 'none' : Math.round(row.score)}</span>
            {row.ruledOut.map((out) => {
              const criterion = criteria.find((each) => each.id === out.criterionId);
              const value = row.cells.find((cell) => cell.criterionId === out.criterionId)?.value;
              return (
                <span key={out.criterionId} className="said alarm">
                  Ruled out: {out.reason}
                  {criterion?.dealbreaker &&
                    value !== null &&
                    value !== undefined &&
                    ` (${Math.round(value * 10) / 10} against ${plainNumber(criterion.dealbreaker.limit)} ${criterionUnit(criterion)})`}
                  .
                </span>
              );
            })}
            {row.missing.length > 0 && (
              <span className="said soft">
                Missing: {row.missing.map(nameOf).join(', ')}. The score stands on {Math.round(row.known * 100)} % of the weight.
              </span>
            )}
          </div>
        );
      })}
      <p className="small soft mt-2 mb-0">
        {gaps
          ? 'The band runs from the score if all that is missing turned out worst to the score if it turned out best.'
          : 'Nothing is missing. Each score is the weighted mean of how desirable its values are.'}
      </p>
    </>
  );
}
