import type { VerdictView } from '@marvet/core/contract/verdict';
import type { RawRow } from '@marvet/core/decide/rawFigures';
import { criterionUnit } from '@marvet/core/decide/verdictCsv';
import { grouped } from '@marvet/core/domain/grouped';
import { slateLabel } from '@marvet/core/domain/take';
import { MEASURES, signed } from '@marvet/core/measure/catalogue';
import { conditionWordsOfKey } from '@marvet/core/plan/levelWords';
import { useRawFiguresQuery } from '../../data/judging.ts';
import { useTakesById, useTrialId, useTrialWords } from '../../data/trialData.ts';
import { usePlanQuery } from '../../data/work.ts';
import { Loaded, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** More rows than this nobody reads on paper. */
const MOST_ROWS = 600;

/** Every value that the verdict rests on, take by take. */
export function RawFigures({ view }: { view: VerdictView }) {
  const trialId = useTrialId();
  const raw = useRawFiguresQuery(trialId);
  const plan = usePlanQuery(trialId);
  return (
    <Sheet title="Raw figures" aside={<span className="small soft">all that the verdict rests on; several values are of several listeners</span>}>
      <Loaded of={[raw, plan]}>
        {() => (
          <section className="sheet-scroll" tabIndex={0} aria-label="Figures take by take">
            <table className="plain small raw">
              <thead>
                <tr>
                  <th>Candidate</th>
                  {view.criteria.map((criterion) => (
                    <th key={criterion.id} className="num">
                      {criterion.name} <span className="soft fw-normal">{criterionUnit(criterion)}</span>
                    </th>
                  ))}
                </tr>
              </thead>
              {[...grouped(raw.data!.slice(0, MOST_ROWS), ({ takeId, condition }) => `${takeId} ${condition}`)].map(([key, rows]) => (
                <OneTake key={key} rows={rows} view={view} where={(condition) => conditionWordsOfKey(plan.data!, condition)} />
              ))}
            </table>
            {raw.data!.length > MOST_ROWS && <p className="small mb-0">{(raw.data!.length - MOST_ROWS).toLocaleString('en')} more rows are in the figures of Takes, as CSV.</p>}
          </section>
        )}
      </Loaded>
    </Sheet>
  );
}

/** What all candidates of one take have, under the take and its condition. */
function OneTake({ rows, view, where }: { rows: readonly RawRow[]; view: VerdictView; where(condition: string): string }) {
  const trialId = useTrialId();
  const words = useTrialWords(trialId);
  const take = useTakesById(trialId).get(rows[0]?.takeId ?? '');
  return (
    <tbody className="keep">
      <tr>
        <th colSpan={1 + view.criteria.length} scope="rowgroup" className="fw-normal">
          {take ? (
            <>
              <b className="mono">{slateLabel(take)}</b> <span className="soft">{where(rows[0]?.condition ?? '')}</span>
            </>
          ) : (
            <span className="soft">of no take: marks, and how far links hold</span>
          )}
        </th>
      </tr>
      {rows.map(({ candidateId, values }) => {
        const chain = words.chains.get(candidateId);
        return (
          <tr key={candidateId} data-raw>
            <td className="text-nowrap">{chain && <TapeMark tape={chain.tape} name="" />}</td>
            {view.criteria.map(({ id, measureId }, at) => (
              <td key={id} className="num">
                {(values[at] ?? []).map((value) => signed(value, measureId ? MEASURES[measureId].digits : 1)).join(', ')}
              </td>
            ))}
          </tr>
        );
      })}
    </tbody>
  );
}
