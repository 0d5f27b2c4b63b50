import type { FrameDanger } from '@marvet/core/domain/frame';
import type { Drawing } from './drawing.ts';

interface DangersDrawnProps {
  dangers: readonly FrameDanger[];
  at: Drawing;
}

/** Dangers from the side: a line as the end of a wire, a strip as a band on the ground. */
export function DangersAside({ dangers, at }: DangersDrawnProps) {
  return dangers.map((danger) => {
    const x = at.x(danger.awayM);
    if (danger.kind === 'overhead line') {
      // A line over the drawing is told at its upper edge.
      const y = Math.max(10, at.y(danger.heightM));
      return (
        <g key={danger.id} className="danger">
          <circle cx={x} cy={y} r={5} />
          <line x1={x} y1={y} x2={x} y2={0} />
          <text className="name" x={x + 9} y={y + 8}>
            overhead line, {danger.heightM} m up
          </text>
        </g>
      );
    }
    return (
      <g key={danger.id} className="danger">
        <rect x={at.x(danger.awayM - danger.deepM / 2)} y={at.y(0) - 3} width={danger.deepM * at.perM} height={8} />
        <text className="name" x={x} y={at.y(0) - 8} textAnchor="middle">
          {danger.kind}
        </text>
      </g>
    );
  });
}

/** Dangers from above: a line across all of it, a strip as its outline on the ground. */
export function DangersFromAbove({ dangers, at }: DangersDrawnProps) {
  return dangers.map((danger) => (
    <g key={danger.id} className="danger">
      {danger.kind === 'overhead line' ? (
        <line x1={at.x(danger.awayM)} y1={0} x2={at.x(danger.awayM)} y2={at.height} />
      ) : (
        <rect x={at.x(danger.awayM - danger.deepM / 2)} y={at.y(danger.acrossM - danger.wideM / 2)} width={danger.deepM * at.perM} height={danger.wideM * at.perM} />
      )}
      <circle cx={at.x(danger.awayM)} cy={at.y(danger.acrossM)} r={5} />
      <text className="name" x={at.x(danger.awayM) + 8} y={at.y(danger.acrossM) - 6}>
        {danger.kind}
      </text>
    </g>
  ));
}
