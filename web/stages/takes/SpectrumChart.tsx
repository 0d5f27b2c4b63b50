import { THIRD_OCTAVE_NAMES_HZ } from '@marvet/core/audio/bands';
import { signed } from '@marvet/core/measure/catalogue';
import type { SpectrumGroup } from '@marvet/core/measure/report.types';
import { CartesianGrid, Legend, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { HZ_TICKS, hzText } from './hertz.ts';

/** Words and pauses in third-octave bands, with the table behind. */
export function SpectrumChart({ spectrum }: { spectrum: SpectrumGroup }) {
  const rows = THIRD_OCTAVE_NAMES_HZ.map((hz, index) => ({ hz, words: spectrum.speechDb[index] ?? null, pauses: spectrum.pauseDb[index] ?? null }));
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
            ticks={HZ_TICKS}
            tickFormatter={hzText}
            stroke="var(--soft)"
            fontSize={12}
            unit=""
            label={{ value: 'Hz', position: 'insideBottomRight', offset: -2, fill: 'var(--soft)', fontSize: 12 }}
          />
          <YAxis
            stroke="var(--soft)"
            fontSize={12}
            width={54}
            tickFormatter={(value: number) => signed(value, 0)}
            domain={['auto', 'auto']}
            label={{ value: 'dBFS', angle: -90, position: 'insideLeft', offset: 12, fill: 'var(--soft)', fontSize: 12 }}
          />
          <Tooltip
            contentStyle={{ background: 'var(--surface)', border: '1px solid var(--ink)', color: 'var(--ink)' }}
            formatter={(value) => (typeof value === 'number' ? `${signed(value, 1)} dBFS` : 'not measured')}
            labelFormatter={(hz) => `${hz} Hz`}
          />
          <Legend />
          <Line dataKey="words" stroke="var(--ink)" strokeWidth={2} dot={false} isAnimationActive={false} />
          <Line dataKey="pauses" stroke="var(--fill)" strokeWidth={2} strokeDasharray="5 4" dot={false} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
      <details>
        <summary className="small">The same as a table</summary>
        <table className="plain small">
          <thead>
            <tr>
              <th className="num">Band Hz</th>
              <th className="num">Words dBFS</th>
              <th className="num">Pauses dBFS</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.hz}>
                <td className="num">{row.hz}</td>
                <td className="num">{row.words === null ? '' : signed(row.words, 1)}</td>
                <td className="num">{row.pauses === null ? '' : signed(row.pauses, 1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  );
}
