import { TAPE_KINDS, type Tape } from '@marvet/core/domain/tape';
import { type LabelProps, Line } from 'recharts';

interface TapeLineProps {
  dataKey: string;
  name: string;
  tape: Tape;
  /** Points of the line: its letters stand at the last. */
  points: number;
  dots?: boolean;
}

/** Ink of the pattern on a tape, in both themes. */
const INK = '#171B1E';

/** A candidate's line in a chart: its tape's colour with its dash in ink on it, and an edge, so that it stands out of paper and dusk alike, with its letters at the end. */
export function TapeLine({ dataKey, name, tape, points, dots = false }: TapeLineProps) {
  const { colour, dash } = TAPE_KINDS[tape.kind] ?? TAPE_KINDS[0];
  const letters = ({ index, x, y }: LabelProps & { index?: number }) =>
    index === points - 1 ? (
      <text x={Number(x) + 6} y={Number(y) + 4} className="line-letters">
        {tape.letters}
      </text>
    ) : (
      <g />
    );
  const bare = { dataKey, dot: false, activeDot: false, isAnimationActive: false, connectNulls: true } as const;
  return (
    <>
      <Line {...bare} stroke="var(--ink)" strokeWidth={6} legendType="none" tooltipType="none" />
      <Line {...bare} name={name} stroke={colour} strokeWidth={4} dot={dots ? { r: 4, fill: colour, stroke: 'var(--ink)' } : false} label={letters as never} />
      <Line {...bare} stroke={INK} strokeWidth={1.5} strokeDasharray={dash} legendType="none" tooltipType="none" hide={dash === ''} />
    </>
  );
}

/** Names in a legend in ink: colours of tapes are too pale to be read. */
export const inkLegend = (name: string) => <span style={{ color: 'var(--ink)' }}>{name}</span>;
