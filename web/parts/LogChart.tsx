import { signed } from '@marvet/core/measure/catalogue';
import type { ReactNode } from 'react';
import { CartesianGrid, Legend, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { inkLegend } from './TapeLine.tsx';

interface LogChartProps {
  rows: readonly object[];
  /** What runs along the chart, as a logarithm. */
  along: { key: string; unit: string; domain: [number, number]; ticks: number[]; text: (value: number) => string };
  /** What stands up it. */
  up: { label: string; unit: string; digits: number; domain?: [number | string | ((value: number) => number), number | string | ((value: number) => number)] };
  /** A line at 0, for differences. */
  zero?: boolean;
  height: number;
  /** Room for letters at the ends of the lines. */
  right?: number;
  /** The lines. */
  children: ReactNode;
}

const SMALL = { fill: 'var(--soft)', fontSize: 12 };
/** A digit of a label upright is so high; it stands in the middle of the axis by half of its length. */
const LETTER_PX = 2.9;

/** Lines over what is told as a logarithm: frequency or distance. */
export function LogChart({ rows, along, up, zero = false, height, right = 16, children }: LogChartProps) {
  return (
    <ResponsiveContainer width="100%" height={height}>
      <LineChart data={rows as object[]} margin={{ top: 6, right, bottom: 4, left: 0 }}>
        <CartesianGrid stroke="var(--rule)" />
        <XAxis
          dataKey={along.key}
          type="number"
          scale="log"
          domain={along.domain}
          ticks={along.ticks}
          tickFormatter={along.text}
          stroke="var(--soft)"
          fontSize={12}
          label={{ value: along.unit, position: 'insideBottomRight', offset: -2, ...SMALL }}
        />
        <YAxis
          stroke="var(--soft)"
          fontSize={12}
          width={54}
          domain={up.domain ?? ['auto', 'auto']}
          tickFormatter={(value: number) => signed(value, up.digits)}
          label={{ value: up.label, angle: -90, position: 'insideLeft', offset: 12, dy: LETTER_PX * up.label.length, ...SMALL }}
        />
        {zero && <ReferenceLine y={0} stroke="var(--ink)" />}
        <Tooltip
          contentStyle={{ background: 'var(--surface)', border: '1px solid var(--ink)', color: 'var(--ink)' }}
          formatter={(value) => (typeof value === 'number' ? `${signed(value, 1)} ${up.unit}` : 'not known')}
          labelFormatter={(value) => `${along.text(Number(value))} ${along.unit}`}
        />
        <Legend formatter={inkLegend} />
        {children}
      </LineChart>
    </ResponsiveContainer>
  );
}
