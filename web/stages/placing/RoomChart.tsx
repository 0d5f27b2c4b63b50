import type { Walls } from '@marvet/core/simulate/imageRoom';
import { Line } from 'recharts';
import { LogChart } from '../../parts/LogChart.tsx';
import { TapeLine } from '../../parts/TapeLine.tsx';
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
  const rows = directOverRoom(walls, patterns);
  return (
    <LogChart
      rows={rows}
      along={{ key: 'distanceM', unit: 'm', domain: [0.1, 8], ticks: TICKS_M, text: (metres) => String(Number(metres.toFixed(2))) }}
      up={{ label: 'voice over the room, dB', unit: 'dB', digits: 0 }}
      zero
      height={280}
      right={34}
    >
      {patterns.map((pattern, index) => {
        const [stroke, dash] = STROKES[index % STROKES.length]!;
        const line = { dataKey: `line${index}`, name: lineName(pattern) };
        return pattern.tape ? (
          <TapeLine key={pattern.name} {...line} tape={pattern.tape} points={rows.length} />
        ) : (
          <Line key={pattern.name} {...line} stroke={stroke} strokeDasharray={dash} strokeWidth={2} dot={false} isAnimationActive={false} />
        );
      })}
    </LogChart>
  );
}
