import { type FigureOfAll, type RecordingRow, TABLE_FIGURES } from '@marvet/core/contract/recordings';
import type { Chain } from '@marvet/core/domain/chain';
import { CONDITION_KINDS, type ConditionKind, NOT_KNOWN } from '@marvet/core/domain/factor';
import { type MeasureId, RECORDING_MEASURE_IDS } from '@marvet/core/domain/measureId';
import type { Plan } from '@marvet/core/domain/plan';
import { isSpoiled, setupCondition, type Take } from '@marvet/core/domain/take';
import { MEASURES, measureText, signed } from '@marvet/core/measure/catalogue';
import { conditionWords, levelLabel } from '@marvet/core/plan/levelWords';
import { type FigurePoint, figureGrid, placeInRange } from '@marvet/core/takes/figureGrid';
import { useMemo } from 'react';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { placed } from '../../data/trialData.ts';
import { useFigureQuery } from '../../data/work.ts';
import { Field } from '../../parts/fields.tsx';
import { Empty } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { FactorChart } from './FactorChart.tsx';

interface FigureMatrixProps {
  trialId: string;
  recordings: RecordingRow[];
  takes: Take[];
  plan: Plan;
  chains: Chain[];
}

const ACROSS: ConditionKind = 'distance';

/** One figure over the whole plan: conditions down, candidates and distances across, a cell the darker the better. */
export function FigureMatrix({ trialId, recordings, takes, plan, chains }: FigureMatrixProps) {
  const [search, changeAddress] = useAddress();
  const navigate = useNavigate();
  const asked = search.get('figure') as MeasureId | null;
  const id = asked && RECORDING_MEASURE_IDS.includes(asked) ? asked : 'noise.snrDb';
  // What the table shows is here already; any other figure is asked for when it is looked at.
  const inTable = (TABLE_FIGURES as readonly string[]).indexOf(id);
  const asking = useFigureQuery({ trialId, measureId: id }, { skip: inTable >= 0 });
  const figures = useMemo(
    () =>
      inTable >= 0
        ? Object.fromEntries(recordings.flatMap((recording) => (recording.table?.[inTable] == null ? [] : [[recording.id, recording.table[inTable] as number]])))
        : (asking.data ?? {}),
    [inTable, recordings, asking.data],
  );
  const points = useMemo(() => pointsOf(recordings, takes, chains, figures), [recordings, takes, chains, figures]);
  const down = CONDITION_KINDS.filter((kind) => kind !== ACROSS && points.some((point) => point.condition[kind] !== undefined));
  const label = (kind: ConditionKind, levelId: string) => levelLabel(plan, kind, levelId);
  const rowKey = (point: Pick<FigurePoint, 'condition'>) => down.map((kind) => point.condition[kind]).join('|');
  const cells = figureGrid(points, (point) => `${rowKey(point)} ${point.candidateId} ${point.condition[ACROSS]}`);
  const rows = [...new Map(points.map((point) => [rowKey(point), point.condition])).entries()];
  // What is not known has no place in the plan; it comes last.
  const order = (kind: ConditionKind) => [...(plan.factors.find((factor) => factor.kind === kind)?.levels.map((level) => level.id) ?? []), NOT_KNOWN];
  const conditionText = (condition: FigurePoint['condition']) => conditionWords(plan, condition, down).join(', ') || NOT_KNOWN;
  rows.sort(([, a], [, b]) => down.map((kind) => order(kind).indexOf(a[kind] ?? '') - order(kind).indexOf(b[kind] ?? '')).find((by) => by !== 0) ?? 0);
  const distancesOf = (chain: Chain) => order(ACROSS).filter((level) => points.some((point) => point.condition[ACROSS] === level && point.candidateId === chain.id));
  const candidates = chains.filter((chain) => points.some((point) => point.candidateId === chain.id));
  const medians = [...cells.values()].map((cell) => cell.median);
  const { unit, better, digits } = MEASURES[id];
  return (
    <>
      <div className="filters mb-2">
        <Field label="Figure">
          {(fieldId) => (
            <Form.Select id={fieldId} size="sm" value={id} onChange={(event) => changeAddress({ figure: event.target.value })}>
              {RECORDING_MEASURE_IDS.map((each) => (
                <option key={each} value={each}>
                  {MEASURES[each].label}
                  {MEASURES[each].unit && `, ${MEASURES[each].unit}`}
                </option>
              ))}
            </Form.Select>
          )}
        </Field>
        {medians.length > 0 && <Scale least={Math.min(...medians)} most={Math.max(...medians)} id={id} />}
      </div>
      {asking.isFetching ? (
        <Empty>The figure is being fetched.</Empty>
      ) : points.length === 0 ? (
        <Empty>No judged take has this figure. Not every figure can be measured on every recording.</Empty>
      ) : (
        <>
          <section className="sheet-scroll" tabIndex={0} aria-label="Figure over the plan">
            <table className="matrix figures-matrix">
              <thead>
                <tr>
                  <th rowSpan={2}>{down.join(', ')}</th>
                  {candidates.map((chain) => (
                    <th key={chain.id} colSpan={distancesOf(chain).length} className="matrix-tape group-start">
                      <TapeMark tape={chain.tape} name={chain.name} />
                    </th>
                  ))}
                </tr>
                <tr>
                  {candidates.flatMap((chain) =>
                    distancesOf(chain).map((distance, index) => (
                      <th key={chain.id + distance} className={`mono ${index === 0 ? 'group-start' : ''}`}>
                        {label(ACROSS, distance)}
                      </th>
                    )),
                  )}
                </tr>
              </thead>
              <tbody>
                {rows.map(([key, condition]) => (
                  <tr key={key}>
                    <th scope="row">{conditionText(condition)}</th>
                    {candidates.flatMap((chain) =>
                      distancesOf(chain).map((distance, index) => {
                        const start = index === 0 ? 'group-start' : '';
                        const cell = cells.get(`${key} ${chain.id} ${distance}`);
                        if (!cell) return <td key={chain.id + distance} className={start} />;
                        const place = placeInRange(cell.median, medians);
                        return (
                          <td key={chain.id + distance} className={start}>
                            <button
                              type="button"
                              className="figure-cell mono"
                              style={{ '--share': `${Math.round(60 * (better === 'lower' ? 1 - place : place))}%` } as React.CSSProperties}
                              aria-label={`${chain.name}, ${label(ACROSS, distance)}, ${conditionText(condition)}: ${measureText(id, cell.median)}, look inside`}
                              onClick={() => navigate(`/trials/${trialId}/takes/${cell.points[0]?.recordingId}`)}
                            >
                              {signed(cell.median, digits)}
                            </button>
                          </td>
                        );
                      }),
                    )}
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          <FactorChart points={points} plan={plan} chains={candidates} unit={unit} digits={digits} label={MEASURES[id].label} />
        </>
      )}
    </>
  );
}

function Scale({ least, most, id }: { least: number; most: number; id: MeasureId }) {
  const { better, digits, unit } = MEASURES[id];
  const ends = better === 'lower' ? [most, least] : [least, most];
  const [pale, dark] = ends.map((value) => signed(value, digits)) as [string, string];
  return (
    <span className="small mb-1 text-nowrap">
      <span className="mono">{pale}</span> <span className="scale-bar" aria-hidden /> <span className="mono">{dark}</span> {unit}
      {better === 'neither' ? '' : ', stronger is better'}
    </span>
  );
}

function pointsOf(recordings: readonly RecordingRow[], takes: readonly Take[], chains: readonly Chain[], figures: FigureOfAll): FigurePoint[] {
  const takeById = new Map(takes.map((take) => [take.id, take]));
  const chainById = new Map(chains.map((chain) => [chain.id, chain]));
  return recordings.flatMap((recording): FigurePoint[] => {
    const { take, setup } = placed(recording, takeById, chainById);
    const value = figures[recording.id];
    if (!take || !setup || isSpoiled(take) || value === undefined) return [];
    return [{ recordingId: recording.id, candidateId: setup.candidateId, condition: setupCondition(take, setup), value }];
  });
}
