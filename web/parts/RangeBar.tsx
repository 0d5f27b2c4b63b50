import { TAPE_KINDS, type Tape } from '@marvet/core/domain/tape';
import type { RangeRow } from '@marvet/core/radio/rangeWindows';

/** Distances over the width of a drawing, as logarithms. */
interface RangeScaleOf {
  fromM: number;
  toM: number;
  x(distanceM: number): number;
}

const WIDTH = 420;
const HEIGHT = 34;
const MIDDLE = HEIGHT / 2;
/** A distance so near to an end has no room for its words. */
const EDGE = 1.2;
const TICKS_M = [1, 2, 5, 10, 20, 50, 100, 200, 500];

/** From half of the nearest that was tried to three times the farthest. */
export function rangeScale(rows: readonly RangeRow[]): RangeScaleOf {
  const fromM = Math.min(...rows.map(({ range }) => range.nearestM)) / 2;
  const toM = Math.max(...rows.map(({ range }) => range.farthestM)) * 3;
  const x = (distanceM: number) => (WIDTH * Math.log(Math.max(fromM, Math.min(toM, distanceM)) / fromM)) / Math.log(toM / fromM);
  return { fromM, toM, x };
}

/** The distances of a scale, with their unit. */
export function RangeScale({ scale }: { scale: RangeScaleOf }) {
  return (
    <svg className="range-bar" viewBox={`0 0 ${WIDTH} 18`} aria-hidden>
      {TICKS_M.filter((metres) => metres > scale.fromM * EDGE && metres < scale.toM / EDGE).map((metres) => (
        <text key={metres} x={scale.x(metres)} y={13} textAnchor="middle">
          {metres} m
        </text>
      ))}
    </svg>
  );
}

/** How far one link holds: its band of doubt, its figure, and at each mark what held and what broke up. */
export function RangeBar({ row, tape, scale }: { row: RangeRow; tape: Tape; scale: RangeScaleOf }) {
  const { range, marks } = row;
  const { lowM, highM, reliableToM, atLeastM } = range;
  const low = scale.x(atLeastM ?? lowM ?? scale.fromM);
  const high = highM === null ? WIDTH : scale.x(highM);
  const colour = TAPE_KINDS[tape.kind]?.colour ?? 'var(--fill)';
  return (
    <svg className="range-bar" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      <line className="axis" x1={0} y1={MIDDLE} x2={WIDTH} y2={MIDDLE} />
      <rect className={highM === null ? 'open' : ''} x={low} y={MIDDLE - 8} width={Math.max(2, high - low)} height={16} rx={4} fill={colour} />
      {reliableToM !== null && <line className="figure" x1={scale.x(reliableToM)} y1={MIDDLE - 13} x2={scale.x(reliableToM)} y2={MIDDLE + 13} />}
      {marks.map(({ distanceM, windows, brokeUp }) => (
        <g key={distanceM} transform={`translate(${scale.x(distanceM)} ${MIDDLE})`}>
          <circle r={5} className={brokeUp === 0 ? 'held' : 'broke'} />
          {brokeUp > 0 && brokeUp < windows && <path className="held" d="M 0 -5 A 5 5 0 0 0 0 5 Z" />}
          <title>{`${Number(distanceM.toFixed(1))} m: ${brokeUp} of ${windows} broke up`}</title>
        </g>
      ))}
    </svg>
  );
}
