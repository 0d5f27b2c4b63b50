import type { VerdictNote } from '@marvet/core/decide/usableRecordings';
import type { VerdictRow } from '@marvet/core/decide/verdict';
import { ruledOutText } from '@marvet/core/decide/verdictCsv';
import type { Criterion } from '@marvet/core/domain/criterion';
import { conditionWordsOfKey } from '@marvet/core/plan/levelWords';
import { Link } from 'react-router';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { usePlanQuery } from '../../data/work.ts';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** Candidates by rank: score as a tick, and as a band what it could still become with what is missing. */
export function Ranking({ rows, criteria, notes }: { rows: VerdictRow[]; criteria: Criterion[]; notes: readonly VerdictNote[] }) {
  const trialId = useTrialId();
  const words = useTrialWords(trialId);
  const { data: plan } = usePlanQuery(trialId);
  const where = (key: string) => conditionWordsOfKey(plan ?? [], key);
  const nameOf = (id: string) => criteria.find((criterion) => criterion.id === id)?.name ?? 'a criterion';
  const gaps = rows.some((row) => row.known < 1 - 1e-9);
  return (
    <>
      {rows.map((row) => {
        const chain = words.chains.get(row.candidate.id);
        return (
          <div key={row.candidate.id} className="rank-row keep">
            <span className="place mono">{row.rank ?? '–'}</span>
            {chain ? <TapeMark tape={chain.tape} name="" width={56} /> : <span />}
            <Link to={`/trials/${trialId}/verdict/${row.candidate.id}`} className="fw-bold candidate-link">
              {row.candidate.name}
            </Link>
            <div className="band" aria-hidden>
              {row.lowest !== null && row.highest !== null && row.score !== null && (
                <>
                  {row.known < 1 - 1e-9 && <span className="doubt" style={{ left: `${row.lowest}%`, width: `${Math.max(1, row.highest - row.lowest)}%` }} />}
                  <span className="tick" style={{ left: `${row.score}%` }} />
                </>
              )}
            </div>
            <span className="score">{row.score === null ? 'none' : Math.round(row.score)}</span>
            {row.ruledOut.map((out) => (
              <span key={out.criterionId} className="said alarm">
                Ruled out: {ruledOutText(out, criteria, where)}.
              </span>
            ))}
            {row.untested.length > 0 && (
              <span className="said">
                Not tested at everything that others were: {row.untested.map(nameOf).join(', ')}, which can rule out. So it stands behind those that were.
              </span>
            )}
            {row.missing.length === 0 && row.known < 1 - 1e-9 && (
              <span className="said soft">Known at fewer conditions than others: {Math.round(row.known * 100)} % of the weight is known.</span>
            )}
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
          ? 'The band runs from the score if all that is missing turned out worst to the score if it turned out best. Places follow its lower end: what is sure.'
          : notes.length > 0
            ? 'Every criterion has a value. Each score is the weighted mean of how desirable its values are; what it rests on is told above.'
            : 'Nothing is missing. Each score is the weighted mean of how desirable its values are.'}
      </p>
    </>
  );
}
