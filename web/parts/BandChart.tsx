import { signed } from '@marvet/core/measure/catalogue';
import { Line } from 'recharts';
import { LogChart } from './LogChart.tsx';

const TICKS = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 16000];
const FEW_DB = 5;
const hzText = (hz: number) => (hz >= 1000 ? `${hz / 1000}k` : String(hz));

/** One band: its name and the values of both lines. */
export interface BandRow {
  hz: number;
  first: number | null;
  second: number | null;
}

interface BandChartProps {
  rows: BandRow[];
  names: [first: string, second: string];
  unit: string;
  /** A line at 0, for differences. */
  zero?: boolean;
}

/** Two lines over the third-octave bands, with the table behind. */
export function BandChart({ rows, names: [first, second], unit, zero = false }: BandChartProps) {
  const values = rows.flatMap((row) => [row.first ?? [], row.second ?? []].flat());
  // Within a few decibels whole ones would stand on the axis twice.
  const digits = Math.max(...values) - Math.min(...values) < FEW_DB ? 1 : 0;
  return (
    <>
      <LogChart rows={rows} along={{ key: 'hz', unit: 'Hz', domain: [20, 20_000], ticks: TICKS, text: hzText }} up={{ label: unit, unit, digits }} zero={zero} height={260}>
        <Line dataKey="first" name={first} stroke="var(--ink)" strokeWidth={2} dot={false} isAnimationActive={false} />
        <Line dataKey="second" name={second} stroke="var(--fill)" strokeWidth={2} strokeDasharray="5 4" dot={false} isAnimationActive={false} />
      </LogChart>
      <details>
        <summary className="small">The same as a table</summary>
        <table className="plain small">
          <thead>
            <tr>
              <th className="num">Band Hz</th>
              <th className="num">
                {first} {unit}
              </th>
              <th className="num">
                {second} {unit}
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.hz}>
                <td className="num">{row.hz}</td>
                <td className="num">{row.first === null ? '' : signed(row.first, 1)}</td>
                <td className="num">{row.second === null ? '' : signed(row.second, 1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  );
}
