import { signed } from '@marvet/core/measure/catalogue';
import { WORN_BANDS_HZ } from '@marvet/core/place/wornColour';
import { CartesianGrid, Legend, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

import { inkLegend } from '../../parts/TapeLine.tsx';

/** A curve of colour by third octaves. */
export interface ColourLine {
  name: string;
  colourDb: readonly (number | null)[];
}

const TICKS_HZ = [100, 250, 500, 1000, 2500, 5000, 10_000];
const STROKES = [
  ['var(--accent)', '0'],
  ['var(--ink)', '7 4'],
  ['var(--fill)', '2 3'],
  ['var(--caution)', '8 3 2 3'],
] as const;

const hzText = (hz: number) => (hz >= 1000 ? `${Number((hz / 1000).toFixed(1))}k` : String(Math.round(hz)));

/** Colour against the boom, without level, by third octave. */
export function ColourChart({ lines }: { lines: readonly ColourLine[] }) {
  const data = WORN_BANDS_HZ.map((hz, band) => ({ hz, ...Object.fromEntries(lines.map(({ colourDb }, index) => [`line${index}`, colourDb[band] ?? null])) }));
  return (
    <ResponsiveContainer width="100%" height={220}>
      <LineChart data={data} margin={{ top: 6, right: 16, bottom: 4, left: 0 }}>
        <CartesianGrid stroke="var(--rule)" />
        <XAxis
          dataKey="hz"
          type="number"
          scale="log"
          domain={[95, 13_000]}
          ticks={TICKS_HZ}
          tickFormatter={hzText}
          stroke="var(--soft)"
          fontSize={12}
          label={{ value: 'Hz', position: 'insideBottomRight', offset: -2, fill: 'var(--soft)', fontSize: 12 }}
        />
        <YAxis
          stroke="var(--soft)"
          fontSize={12}
          width={54}
          domain={[(least: number) => Math.min(-6, Math.floor(least)), (most: number) => Math.max(6, Math.ceil(most))]}
          tickFormatter={(value: number) => signed(value, 0)}
          label={{ value: 'against the boom, dB', angle: -90, position: 'insideLeft', offset: 12, dy: 66, fill: 'var(--soft)', fontSize: 12 }}
        />
        <ReferenceLine y={0} stroke="var(--ink)" />
        <Tooltip
          contentStyle={{ background: 'var(--surface)', border: '1px solid var(--ink)', color: 'var(--ink)' }}
          formatter={(value) => `${signed(Number(value), 1)} dB`}
          labelFormatter={(hz) => `${hzText(Number(hz))} Hz`}
        />
        <Legend formatter={inkLegend} />
        {lines.map(({ name }, index) => {
          const [stroke, dash] = STROKES[index % STROKES.length]!;
          return <Line key={name} dataKey={`line${index}`} name={name} stroke={stroke} strokeDasharray={dash} strokeWidth={2} dot={false} isAnimationActive={false} />;
        })}
      </LineChart>
    </ResponsiveContainer>
  );
}
