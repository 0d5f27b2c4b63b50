import type { Chain } from '@marvet/core/domain/chain';
import { EXTRA_KINDS, type FactorKind, type Level, type Setup, setupKey } from '@marvet/core/domain/factor';
import type { PlanDraft } from '@marvet/core/domain/plan';
import { isExcluded, planKinds, tickedLevels } from '@marvet/core/plan/matrix';
import { useMemo } from 'react';
import { Empty, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { type ChangePlan, factorName } from './planPart.ts';

const MOST_SHOWN = 6000;
type Row = { kind: FactorKind; level: Level }[];

interface MatrixProps {
  plan: PlanDraft;
  chains: Chain[];
  /** Keys of the setups that the design records; null while that is not known. */
  chosen: ReadonlySet<string> | null;
  onChange: ChangePlan;
}

/** The full matrix: places, rigs, windscreens and scripts down, candidates and distances across. A cell is left out or taken back with a click. */
export function Matrix({ plan, chains, chosen, onChange }: MatrixProps) {
  const levels = (kind: FactorKind) => tickedLevels(plan.factors, kind);
  const leftOut = useMemo(() => new Set(plan.leftOut), [plan.leftOut]);
  const kinds = planKinds(plan.factors);
  const down: FactorKind[] = ['station', ...EXTRA_KINDS.filter((kind) => kinds.includes(kind)), 'windscreen', 'script'];
  const rows = down.reduce<Row[]>((all, kind) => all.flatMap((row) => levels(kind).map((level) => [...row, { kind, level }])), [[]]);
  const columns = levels('candidate').flatMap((candidate) => levels('distance').map((distance) => ({ candidate, distance })));
  const cells = rows.length * columns.length;
  const setupOf = (row: Row, column: (typeof columns)[number]): Setup => {
    const setup = { candidate: column.candidate.id, distance: column.distance.id } as Setup;
    for (const { kind, level } of row) setup[kind] = level.id;
    return setup;
  };
  const set = (setups: Setup[]) => {
    const keys = setups.filter((setup) => !isExcluded(setup, plan.rules)).map(setupKey);
    const allOut = keys.every((key) => leftOut.has(key));
    const next = new Set(leftOut);
    for (const key of keys) {
      if (allOut) next.delete(key);
      else next.add(key);
    }
    onChange({ leftOut: [...next] });
  };
  if (cells === 0) return <Sheet title="Cells">{<Empty>Tick at least one level of every factor; the cells of the matrix appear here.</Empty>}</Sheet>;
  if (cells > MOST_SHOWN)
    return (
      <Sheet title="Cells">
        <Empty>{cells} cells are too many to show. Choose a design that records some of them, or untick some levels.</Empty>
      </Sheet>
    );
  const textOf = (row: Row) =>
    row
      .slice(1)
      .map(({ level }) => level.label)
      .join(', ');
  return (
    <Sheet
      title="Cells"
      aside={
        <span className="small soft row-line">
          <span className="cell-key">
            <i className="cell in" /> recorded
          </span>
          <span className="cell-key">
            <i className="cell out" /> left out
          </span>
          {plan.rules.length > 0 && (
            <span className="cell-key">
              <i className="cell never" /> cannot occur
            </span>
          )}
          {plan.design.kind !== 'full' && (
            <span className="cell-key">
              <i className="cell spared" /> spared by the design
            </span>
          )}
          Click a cell, a row or a column
        </span>
      }
    >
      <div className="sheet-scroll">
        <table className="matrix">
          <thead>
            <tr>
              <th rowSpan={2}>station</th>
              <th rowSpan={2}>
                {down
                  .slice(1)
                  .map((kind) => factorName(plan, kind))
                  .join(', ')}
              </th>
              {levels('candidate').map((candidate) => (
                <th key={candidate.id} colSpan={levels('distance').length} className="matrix-tape">
                  <Mark chain={chains.find((chain) => chain.id === candidate.id)} />
                </th>
              ))}
            </tr>
            <tr>
              {columns.map((column) => (
                <th key={column.candidate.id + column.distance.id} className="mono">
                  <button
                    type="button"
                    className="head-button"
                    aria-label={`All of ${column.candidate.label} at ${column.distance.label}`}
                    onClick={() => set(rows.map((row) => setupOf(row, column)))}
                  >
                    {column.distance.label}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => {
              const station = row[0]?.level.label ?? '';
              const same = rows[index - 1]?.[0]?.level.label === station;
              return (
                <tr key={row.map(({ level }) => level.id).join()} className={index > 0 && !same ? 'new-station' : ''}>
                  <th scope="row">
                    <span className={same ? 'visually-hidden' : ''}>{station}</span>
                  </th>
                  <th scope="row">
                    <button
                      type="button"
                      className="head-button"
                      aria-label={`All of ${station}, ${textOf(row)}`}
                      onClick={() => set(columns.map((column) => setupOf(row, column)))}
                    >
                      {textOf(row)}
                    </button>
                  </th>
                  {columns.map((column) => {
                    const setup = setupOf(row, column);
                    const key = setupKey(setup);
                    const never = isExcluded(setup, plan.rules);
                    const out = leftOut.has(key);
                    const state = never ? 'never' : out ? 'out' : chosen && !chosen.has(key) ? 'spared' : 'in';
                    const said = state === 'never' ? ': cannot occur' : state === 'spared' ? ': spared by the design' : '';
                    return (
                      <td key={column.candidate.id + column.distance.id}>
                        <button
                          type="button"
                          className={`cell ${state}`}
                          aria-pressed={!out && !never}
                          disabled={never}
                          aria-label={`${station}, ${textOf(row)}, ${column.candidate.label}, ${column.distance.label}${said}`}
                          onClick={() => set([setup])}
                        />
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </Sheet>
  );
}

function Mark({ chain }: { chain: Chain | undefined }) {
  return chain ? <TapeMark tape={chain.tape} name={chain.name} /> : null;
}
