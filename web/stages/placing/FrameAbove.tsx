import { looksTo, tailOf } from '@marvet/core/place/boomPlace';
import { edgesAt } from '@marvet/core/place/frameView';
import { boomNames } from './boomWords.ts';
import { DangersFromAbove } from './DangersDrawn.tsx';
import { aboveDrawing } from './drawing.ts';
import { type FrameDrawingProps, held } from './FrameSide.tsx';
import { MovedSpot } from './MovedSpot.tsx';

/** The frame from above: who stands where, what they look at, and where the pole comes from. */
export function FrameAbove({ frame, kept, figures, onMove, onRest }: FrameDrawingProps) {
  const at = aboveDrawing(kept);
  const { camera, talkers, booms, operator } = frame;
  const names = boomNames(booms);
  const endM = at.width / at.perM;
  const halfM = edgesAt(camera, endM).halfWidthM;
  // Down in the drawing is to the camera's right.
  const moveOne =
    <Spot extends { awayM: number; acrossM: number }>(list: readonly Spot[], index: number, patch: (list: Spot[]) => object) =>
    (byM: { right: number; up: number }, byKey: boolean) => {
      const from = list[index];
      if (!from) return;
      const moved = { ...from, awayM: held(from.awayM + byM.right, 0.3, 60), acrossM: held(from.acrossM - byM.up, -20, 20) };
      onMove(patch(list.map((each, place) => (place === index ? moved : each))), byKey);
    };
  return (
    <figure className="placing" aria-label="The frame from above">
      <svg viewBox={`0 0 ${at.width} ${at.height}`} aria-hidden>
        <polyline className="edge" points={`${at.x(endM)},${at.y(-halfM)} ${at.x(0)},${at.y(0)} ${at.x(endM)},${at.y(halfM)}`} />
        <DangersFromAbove dangers={frame.dangers} at={at} />
        <g className="camera" transform={`translate(${at.x(0)} ${at.y(0)})`}>
          <rect x={-24} y={-8} width={18} height={16} rx={3} />
          <rect x={-6} y={-5} width={6} height={10} />
        </g>
        {talkers.map((talker) => {
          const looks = looksTo(talker);
          const [x, y] = [at.x(talker.awayM), at.y(talker.acrossM)];
          return (
            <g key={talker.id} className="talker">
              <circle className="lean" cx={x} cy={y} r={Math.max(2, talker.leanM * at.perM)} />
              <circle cx={x - looks.awayM * 0.09 * at.perM} cy={y - looks.acrossM * 0.09 * at.perM} r={0.11 * at.perM} />
              <line x1={x} y1={y} x2={x + looks.awayM * 0.05 * at.perM} y2={y + looks.acrossM * 0.05 * at.perM} />
              <text className="name" x={x + 0.2 * at.perM} y={y - 0.2 * at.perM}>
                {talker.name}
              </text>
            </g>
          );
        })}
        <circle className="hands" cx={at.x(operator.awayM)} cy={at.y(operator.acrossM)} r={5} />
        <text className="name" x={at.x(operator.awayM) + 10} y={at.y(operator.acrossM) + 4}>
          hands
        </text>
        {booms.map((boom, index) => {
          const tail = tailOf(boom, talkers);
          return (
            <g key={boom.id} className={`boom ${(figures[index]?.clearM ?? 0) < 0 ? 'seen' : ''}`}>
              {boom.from !== 'planted' && <line className="pole" x1={at.x(tail.awayM)} y1={at.y(tail.acrossM)} x2={at.x(operator.awayM)} y2={at.y(operator.acrossM)} />}
              <line
                className="body"
                x1={at.x(boom.awayM)}
                y1={at.y(boom.acrossM)}
                x2={at.x(tail.awayM)}
                y2={at.y(tail.acrossM)}
                strokeWidth={Math.max(6, boom.screenM * at.perM)}
              />
            </g>
          );
        })}
      </svg>
      {talkers.map((talker, index) => (
        <MovedSpot
          key={talker.id}
          label={`${talker.name} from above, ${talker.acrossM.toFixed(2)} m across: arrow keys move`}
          x={at.x(talker.awayM)}
          y={at.y(talker.acrossM)}
          at={at}
          onMove={moveOne(talkers, index, (list) => ({ talkers: list }))}
          onRest={onRest}
        />
      ))}
      {booms.map((boom, index) => (
        <MovedSpot
          key={boom.id}
          label={`Microphone ${names[index]} from above, ${boom.acrossM.toFixed(2)} m across: arrow keys move`}
          x={at.x(boom.awayM)}
          y={at.y(boom.acrossM)}
          at={at}
          onMove={moveOne(booms, index, (list) => ({ booms: list }))}
          onRest={onRest}
        />
      ))}
      {frame.dangers.map((danger, index) => (
        <MovedSpot
          key={danger.id}
          label={`${danger.kind}, ${danger.awayM.toFixed(1)} m from the camera: arrow keys move`}
          x={at.x(danger.awayM)}
          y={at.y(danger.acrossM)}
          at={at}
          stepM={0.1}
          onMove={moveOne(frame.dangers, index, (list) => ({ dangers: list }))}
          onRest={onRest}
        />
      ))}
      <MovedSpot
        label={`The operator's hands, ${operator.acrossM.toFixed(2)} m across: arrow keys move`}
        x={at.x(operator.awayM)}
        y={at.y(operator.acrossM)}
        at={at}
        onMove={moveOne([operator], 0, ([moved]) => ({ operator: moved }))}
        onRest={onRest}
      />
    </figure>
  );
}
