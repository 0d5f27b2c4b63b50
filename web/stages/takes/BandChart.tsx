import { signed } from '@marvet/core/measure/catalogue';
import { CartesianGrid, Legend, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

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
      <ResponsiveContainer width="100%" height={260}>
        <LineChart data={rows} margin={{ top: 6, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" />
          <XAxis
            dataKey="hz"
            type="number"
            scale="log"
            domain={[20, 20000]}
            ticks={TICKS}
            tickFormatter={hzText}
            stroke="var(--soft)"
            fontSize={12}
            label={{ value: 'Hz', position: 'insideBottomRight', offset: -2, fill: 'var(--soft)', fontSize: 12 }}
          />
          <YAxis
            stroke="var(--soft)"
            fontSize={12}
            width={54}
            tickFormatter={(value: number) => signed(value, digits)}
            domain={['auto', 'auto']}
            label={{ value: unit, angle: -90, position: 'insideLeft', offset: 12, fill: 'var(--soft)', fontSize: 12 }}
          />
          {zero && <ReferenceLine y={0} stroke="var(--ink)" />}
          <Tooltip
            contentStyle={{ background: 'var(--surface)', border: '1px solid var(--ink)', color: 'var(--ink)' }}
            formatter={(value) => (typeof value === 'number' ? `${signed(value, 1)} ${unit}` : 'not measured')}
            labelFormatter={(hz) => `${hz} Hz`}
          />
          <Legend />
          <Line dataKey="first" name={first} stroke="var(--ink)" strokeWidth={2} dot={false} isAnimationActive={false} />
          <Line dataKey="second" name={second} stroke="var(--fill)" strokeWidth={2} strokeDasharray="5 4" dot={false} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
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
