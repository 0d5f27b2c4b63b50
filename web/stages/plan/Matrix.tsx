import type { Chain } from '@marvet/core/domain/chain';
import { type Level, type Setup, setupKey } from '@marvet/core/domain/factor';
import type { PlanDraft } from '@marvet/core/domain/plan';
import { tickedLevels } from '@marvet/core/plan/matrix';
import { Fragment, useMemo } from 'react';
import { Empty, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';

const MOST_SHOWN = 6000;

/** The full matrix: stations, windscreens and scripts down, candidates and distances across. A cell is left out or taken back with a click. */
export function Matrix({ plan, chains, onChange }: { plan: PlanDraft; chains: Chain[]; onChange: (patch: Partial<PlanDraft>) => void }) {
  const levels = {
    station: tickedLevels(plan.factors, 'station'),
    windscreen: tickedLevels(plan.factors, 'windscreen'),
    script: tickedLevels(plan.factors, 'script'),
    candidate: tickedLevels(plan.factors, 'candidate'),
    distance: tickedLevels(plan.factors, 'distance'),
  };
  const leftOut = useMemo(() => new Set(plan.leftOut), [plan.leftOut]);
  const rows = levels.station.flatMap((station) => levels.windscreen.flatMap((windscreen) => levels.script.map((script) => ({ station, windscreen, script }))));
  const columns = levels.candidate.flatMap((candidate) => levels.distance.map((distance) => ({ candidate, distance })));
  const cells = rows.length * columns.length;
  const keyOf = (row: (typeof rows)[number], column: (typeof columns)[number]) => setupKey(setupOf(row, column));
  const set = (keys: string[]) => {
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
        <Empty>{cells} cells are too many to show and to record. Untick some levels.</Empty>
      </Sheet>
    );
  const manyDistances = levels.distance.length;
  return (
    <Sheet title="Cells" aside={<span className="small soft">Click a cell, a row or a column to leave it out or take it back</span>}>
      <div className="sheet-scroll">
        <table className="matrix">
          <thead>
            <tr>
              <th rowSpan={2}>station</th>
              <th rowSpan={2}>windscreen, script</th>
              {levels.candidate.map((candidate) => (
                <th key={candidate.id} colSpan={manyDistances} className="matrix-tape">
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
                    onClick={() => set(rows.map((row) => keyOf(row, column)))}
                  >
                    {column.distance.label}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              <Fragment key={row.station.id + row.windscreen.id + row.script.id}>
                <tr className={index > 0 && rows[index - 1]?.station.id !== row.station.id ? 'new-station' : ''}>
                  <th scope="row">
                    <span className={rows[index - 1]?.station.id === row.station.id ? 'visually-hidden' : ''}>{row.station.label}</span>
                  </th>
                  <th scope="row">
                    <button
                      type="button"
                      className="head-button"
                      aria-label={`All of ${row.station.label}, ${row.windscreen.label}, ${row.script.label}`}
                      onClick={() => set(columns.map((column) => keyOf(row, column)))}
                    >
                      {row.windscreen.label}, {row.script.label}
                    </button>
                  </th>
                  {columns.map((column) => {
                    const key = keyOf(row, column);
                    const out = leftOut.has(key);
                    return (
                      <td key={column.candidate.id + column.distance.id}>
                        <button
                          type="button"
                          className={`cell ${out ? 'out' : 'in'}`}
                          aria-pressed={!out}
                          aria-label={`${row.station.label}, ${row.windscreen.label}, ${row.script.label}, ${column.candidate.label}, ${column.distance.label}`}
                          onClick={() => set([key])}
                        />
                      </td>
                    );
                  })}
                </tr>
              </Fragment>
            ))}
          </tbody>
        </table>
      </div>
    </Sheet>
  );
}

function setupOf(row: { station: Level; windscreen: Level; script: Level }, column: { candidate: Level; distance: Level }): Setup {
  return { station: row.station.id, windscreen: row.windscreen.id, script: row.script.id, candidate: column.candidate.id, distance: column.distance.id };
}

function Mark({ chain }: { chain: Chain | undefined }) {
  return chain ? <TapeMark tape={chain.tape} name={chain.name} /> : null;
}
