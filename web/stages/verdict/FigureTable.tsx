import { batteriesText } from '@marvet/core/decide/batteriesTold';
import type { VerdictRow } from '@marvet/core/decide/verdict';
import { criterionUnit } from '@marvet/core/decide/verdictCsv';
import { type Criterion, weightShares } from '@marvet/core/domain/criterion';
import { MEASURES, plainNumber, signed } from '@marvet/core/measure/catalogue';
import type { CSSProperties } from 'react';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { TapeMark } from '../../parts/TapeMark.tsx';

/** Every value of every candidate, with its unit and how desirable it is. */
export function FigureTable({ rows, criteria }: { rows: VerdictRow[]; criteria: Criterion[] }) {
  const words = useTrialWords(useTrialId());
  const shares = weightShares(criteria.map((criterion) => criterion.weight));
  const mixed = rows.some((row) => row.cells.some((cell) => cell.reckonedBy !== null));
  return (
    <div className="sheet-scroll">
      <table className="plain">
        <thead>
          <tr>
            <th>Criterion</th>
            <th className="num">Share</th>
            <th className="num">Worst to best</th>
            {rows.map((row) => {
              const chain = words.chains.get(row.candidate.id);
              return (
                <th key={row.candidate.id} className="num">
                  {chain ? <TapeMark tape={chain.tape} name={chain.name} /> : row.candidate.name}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {criteria.map((criterion, index) => (
            <tr key={criterion.id}>
              <td>
                <b>{criterion.name}</b> <span className="soft small">{criterionUnit(criterion)}</span>
              </td>
              <td className="num">{Math.round((shares[index] ?? 0) * 100)} %</td>
              <td className="num soft">
                {plainNumber(criterion.worst)} to {plainNumber(criterion.best)}
              </td>
              {rows.map((row) => {
                const cell = row.cells[index]!;
                if (cell.value === null)
                  return (
                    <td key={row.candidate.id} className="num soft">
                      {row.unlike.includes(criterion.id) ? 'not comparable' : 'missing'}
                    </td>
                  );
                return (
                  <td
                    key={row.candidate.id}
                    className="good"
                    style={{ '--share': cell.desirability } as CSSProperties}
                    title={`${cell.count} conditions recorded${cell.reckoned > 0 ? `, ${cell.reckoned} reckoned` : ''}; desirability ${Math.round((cell.desirability ?? 0) * 100)} of 100`}
                  >
                    {signed(cell.value, digitsOf(criterion))}
                    {cell.reckonedBy && '*'}
                  </td>
                );
              })}
            </tr>
          ))}
          <tr>
            <td>
              <b>Price of the chain</b>
            </td>
            <td />
            <td />
            {rows.map((row) => (
              <td key={row.candidate.id} className="num">
                {row.candidate.price === null ? 'unknown' : `${Math.round(row.candidate.price).toLocaleString('en')} ${row.candidate.currency}`}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <p className="small soft mt-2 mb-0">
        {batteriesText(rows.map(({ candidate }) => candidate))} Measured and listened values are means over conditions, or as their criterion says the middle one or the worst,
        repeats of one counting once; candidates are compared under the same conditions, and spoiled takes are left out.
        {mixed && ' * Not recorded under all of them: what is missing is reckoned from what the others have there.'}
      </p>
    </div>
  );
}

function digitsOf(criterion: Criterion): number {
  return criterion.kind === 'measured' && criterion.measureId ? MEASURES[criterion.measureId].digits : 1;
}
