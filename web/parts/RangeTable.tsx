import type { StoredChain } from '@marvet/core/domain/chain';
import { rangeWords } from '@marvet/core/radio/rangeModel';
import type { RangeRow } from '@marvet/core/radio/rangeWindows';
import { RangeBar, RangeScale, rangeScale } from './RangeBar.tsx';
import { TapeMark } from './TapeMark.tsx';

/** How far each candidate's link holds at one station: drawn with its doubt, and in words. */
export function RangeTable({ rows, chains, label }: { rows: readonly RangeRow[]; chains: readonly StoredChain[]; label: string }) {
  const scale = rangeScale(rows);
  const sorted = chains.flatMap((chain) => rows.filter(({ candidateId }) => candidateId === chain.id).map((row) => ({ chain, row })));
  return (
    <table className="plain ranges" aria-label={label}>
      <thead>
        <tr>
          <th>Candidate</th>
          <th>Side</th>
          <th>
            <span className="visually-hidden">Distance</span>
            <RangeScale scale={scale} />
          </th>
          <th>In words</th>
        </tr>
      </thead>
      <tbody>
        {sorted.map(({ chain, row }) => (
          <tr key={`${row.candidateId}/${row.side}`}>
            <td>
              <TapeMark tape={chain.tape} name={chain.name} />
            </td>
            <td>{row.side}</td>
            <td>
              <RangeBar row={row} tape={chain.tape} scale={scale} />
            </td>
            <td className="small">{rangeWords(row.range)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
