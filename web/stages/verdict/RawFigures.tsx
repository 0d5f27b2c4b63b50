import type { VerdictView } from '@marvet/core/contract/verdict';
import { criterionUnit } from '@marvet/core/decide/verdictCsv';
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
  const takes = useTakesById(trialId);
  const words = useTrialWords(trialId);
  return (
    <Sheet title="Raw figures" aside={<span className="small soft">all that the verdict rests on; several values are of several listeners</span>}>
      <Loaded of={[raw, plan]}>
        {() => (
          <section className="sheet-scroll" tabIndex={0} aria-label="Figures take by take">
            <table className="plain small raw">
              <thead>
                <tr>
                  <th>Take</th>
                  <th>Candidate</th>
                  <th>Under</th>
                  {view.criteria.map((criterion) => (
                    <th key={criterion.id} className="num">
                      {criterion.name} <span className="soft fw-normal">{criterionUnit(criterion)}</span>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {raw.data!.slice(0, MOST_ROWS).map(({ takeId, candidateId, condition, values }) => {
                  const take = takes.get(takeId ?? '');
                  const chain = words.chains.get(candidateId);
                  return (
                    <tr key={`${takeId} ${candidateId} ${condition}`}>
                      <td className="mono">{take ? slateLabel(take) : ''}</td>
                      <td className="text-nowrap">{chain && <TapeMark tape={chain.tape} name="" />}</td>
                      <td className="soft">{take ? conditionWordsOfKey(plan.data!, condition) : 'of no take'}</td>
                      {view.criteria.map(({ id, measureId }, at) => (
                        <td key={id} className="num">
                          {(values[at] ?? []).map((value) => signed(value, measureId ? MEASURES[measureId].digits : 1)).join(', ')}
                        </td>
                      ))}
                    </tr>
                  );
                })}
              </tbody>
            </table>
            {raw.data!.length > MOST_ROWS && <p className="small mb-0">{(raw.data!.length - MOST_ROWS).toLocaleString('en')} more rows are in the figures of Takes, as CSV.</p>}
          </section>
        )}
      </Loaded>
    </Sheet>
  );
}
