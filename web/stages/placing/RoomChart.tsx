import { signed } from '@marvet/core/measure/catalogue';
import type { Walls } from '@marvet/core/simulate/imageRoom';
import { CartesianGrid, Legend, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { inkLegend, TapeLine } from '../../parts/TapeLine.tsx';
import { directOverRoom, lineName, type PatternInRoom } from './roomLines.ts';

const TICKS_M = [0.1, 0.2, 0.5, 1, 2, 5];
const STROKES = [
  ['var(--ink)', '0'],
  ['var(--fill)', '7 4'],
  ['var(--accent)', '2 3'],
  ['var(--caution)', '8 3 2 3'],
  ['var(--soft)', '1 4'],
] as const;

/** How the voice stands over the room against distance, for each pattern that is at hand. */
export function RoomChart({ walls, patterns }: { walls: Walls; patterns: readonly PatternInRoom[] }) {
  const data = directOverRoom(walls, patterns);
  return (
    <ResponsiveContainer width="100%" height={280}>
      <LineChart data={data} margin={{ top: 6, right: 34, bottom: 4, left: 0 }}>
        <CartesianGrid stroke="var(--rule)" />
        <XAxis
          dataKey="distanceM"
          type="number"
          scale="log"
          domain={[0.1, 8]}
          ticks={TICKS_M}
          stroke="var(--soft)"
          fontSize={12}
          label={{ value: 'm', position: 'insideBottomRight', offset: -2, fill: 'var(--soft)', fontSize: 12 }}
        />
        <YAxis
          stroke="var(--soft)"
          fontSize={12}
          width={54}
          tickFormatter={(value: number) => signed(value, 0)}
          label={{ value: 'voice over the room, dB', angle: -90, position: 'insideLeft', offset: 12, dy: 70, fill: 'var(--soft)', fontSize: 12 }}
        />
        <ReferenceLine y={0} stroke="var(--ink)" />
        <Tooltip
          contentStyle={{ background: 'var(--surface)', border: '1px solid var(--ink)', color: 'var(--ink)' }}
          formatter={(value) => `${signed(Number(value), 1)} dB`}
          labelFormatter={(metres) => `${Number(metres).toFixed(2)} m`}
        />
        <Legend formatter={inkLegend} />
        {patterns.map((pattern, index) => {
          const [stroke, dash] = STROKES[index % STROKES.length]!;
          const line = { dataKey: `line${index}`, name: lineName(pattern) };
          return pattern.tape ? (
            <TapeLine key={pattern.name} {...line} tape={pattern.tape} points={data.length} />
          ) : (
            <Line key={pattern.name} {...line} stroke={stroke} strokeDasharray={dash} strokeWidth={2} dot={false} isAnimationActive={false} />
          );
        })}
      </LineChart>
    </ResponsiveContainer>
  );
}
