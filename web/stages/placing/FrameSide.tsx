import type { FrameDraft } from '@marvet/core/domain/frame';
import type { BoomFigures } from '@marvet/core/place/boomFigures';
import { looksTo, tailOf } from '@marvet/core/place/boomPlace';
import { edgesAt } from '@marvet/core/place/frameView';
import { boomNames } from './boomWords.ts';
import { DangersAside } from './DangersDrawn.tsx';
import { type Drawing, sideDrawing } from './drawing.ts';
import { MovedSpot } from './MovedSpot.tsx';

export interface FrameDrawingProps {
  frame: FrameDraft;
  /** The frame as it is kept: while something is moved the drawing itself stays. */
  kept: FrameDraft;
  figures: readonly BoomFigures[];
  onMove: (patch: Partial<FrameDraft>, byKey: boolean) => void;
  onRest: () => void;
}

/** The frame from the side: camera, picture, talkers and booms, to scale. */
export function FrameSide({ frame, kept, figures, onMove, onRest }: FrameDrawingProps) {
  const at = sideDrawing(kept);
  const { talkers, booms, ceilingM } = frame;
  const names = boomNames(booms);
  const moveBoom = (index: number) => (byM: { right: number; up: number }, byKey: boolean) => {
    const from = booms[index];
    if (!from) return;
    const moved = { ...from, awayM: held(from.awayM + byM.right, -5, 60), heightM: held(from.heightM + byM.up, 0, 12) };
    onMove({ booms: booms.map((boom, place) => (place === index ? moved : boom)) }, byKey);
  };
  const moveTalker = (index: number) => (byM: { right: number; up: number }, byKey: boolean) => {
    const from = talkers[index];
    if (!from) return;
    const moved = { ...from, awayM: held(from.awayM + byM.right, 0.3, 60), mouthHeightM: held(from.mouthHeightM + byM.up, 0.1, 3) };
    onMove({ talkers: talkers.map((talker, place) => (place === index ? moved : talker)) }, byKey);
  };
  return (
    <figure className="placing" aria-label="The frame from the side">
      <svg viewBox={`0 0 ${at.width} ${at.height}`} aria-hidden>
        <Unseen frame={frame} at={at} />
        <line className="ground" x1={0} y1={at.y(0)} x2={at.width} y2={at.y(0)} />
        {ceilingM !== null && <line className="ground" x1={0} y1={at.y(ceilingM)} x2={at.width} y2={at.y(ceilingM)} />}
        <DangersAside dangers={frame.dangers} at={at} />
        <Camera frame={frame} at={at} />
        {talkers.map((talker) => (
          <Figure key={talker.id} awayM={talker.awayM} mouthM={talker.mouthHeightM} facing={looksTo(talker).awayM} at={at} />
        ))}
        {booms.some((boom) => boom.from !== 'planted') && <circle className="hands" cx={at.x(frame.operator.awayM)} cy={at.y(frame.operator.handsM)} r={5} />}
        {booms.map((boom, index) => {
          const tail = tailOf(boom, talkers);
          const mouth = talkers[boom.aimsAt] ?? talkers[0]!;
          const heard = figures[index]?.talkers[boom.aimsAt];
          return (
            <g key={boom.id} className={`boom ${(figures[index]?.clearM ?? 0) < 0 ? 'seen' : ''}`}>
              <line className="sight" x1={at.x(boom.awayM)} y1={at.y(boom.heightM)} x2={at.x(mouth.awayM)} y2={at.y(mouth.mouthHeightM)} />
              {boom.from !== 'planted' ? (
                <line className="pole" x1={at.x(tail.awayM)} y1={at.y(tail.heightM)} x2={at.x(frame.operator.awayM)} y2={at.y(frame.operator.handsM)} />
              ) : (
                <line className="pole" x1={at.x(tail.awayM)} y1={at.y(tail.heightM)} x2={at.x(tail.awayM)} y2={at.y(0)} />
              )}
              <line
                className="body"
                x1={at.x(boom.awayM)}
                y1={at.y(boom.heightM)}
                x2={at.x(tail.awayM)}
                y2={at.y(tail.heightM)}
                strokeWidth={Math.max(6, boom.screenM * at.perM)}
              />
              {heard && (
                <text className="figure" x={at.x(boom.awayM) - 16} y={at.y(boom.heightM) + 4} textAnchor="end">
                  {heard.distanceM.toFixed(2)} m
                </text>
              )}
              <text className="name" x={at.x(boom.awayM) - 16} y={at.y(boom.heightM) + 19} textAnchor="end">
                {names[index]}
              </text>
            </g>
          );
        })}
        {talkers.map((talker) => (
          <text key={talker.id} className="name" x={at.x(talker.awayM)} y={at.y(talker.mouthHeightM + 0.32)} textAnchor="middle">
            {talker.name}
          </text>
        ))}
      </svg>
      <MovedSpot
        label={`Camera, ${frame.camera.heightM.toFixed(2)} m high: arrow keys move`}
        at={at}
        x={at.x(0) - 12}
        y={at.y(frame.camera.heightM)}
        onMove={({ up }, byKey) => onMove({ camera: { ...frame.camera, heightM: held(frame.camera.heightM + up, 0, 20) } }, byKey)}
        onRest={onRest}
      />
      {talkers.map((talker, index) => (
        <MovedSpot
          key={talker.id}
          label={`${talker.name}, ${talker.awayM.toFixed(2)} m from the camera, mouth at ${talker.mouthHeightM.toFixed(2)} m: arrow keys move`}
          x={at.x(talker.awayM)}
          y={at.y(talker.mouthHeightM)}
          at={at}
          onMove={moveTalker(index)}
          onRest={onRest}
        />
      ))}
      {booms.map((boom, index) => (
        <MovedSpot
          key={boom.id}
          label={`Microphone ${names[index]}, ${figures[index]?.talkers[boom.aimsAt]?.distanceM.toFixed(2)} m from the mouth: arrow keys move`}
          x={at.x(boom.awayM)}
          y={at.y(boom.heightM)}
          at={at}
          onMove={moveBoom(index)}
          onRest={onRest}
        />
      ))}
    </figure>
  );
}

/** A number within bounds, to the centimetre. */
export const held = (value: number, least: number, most: number): number => Math.round(Math.min(most, Math.max(least, value)) * 100) / 100;

/** What the camera does not see, hatched, between the edges of the drawing and those of the picture. */
function Unseen({ frame: { camera }, at }: { frame: FrameDraft; at: Drawing }) {
  const endM = at.width / at.perM;
  const { topM, bottomM } = edgesAt(camera, endM);
  const lens = `${at.x(0)},${at.y(camera.heightM)}`;
  const [top, bottom] = [topM, bottomM].map((heightM) => `${at.x(endM)},${at.y(heightM)}`);
  return (
    <>
      <defs>
        <pattern id="unseen" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="8" className="hatch" />
        </pattern>
      </defs>
      <polygon fill="url(#unseen)" points={`${at.x(0)},${-at.height} ${lens} ${top} ${at.x(endM)},${-at.height}`} />
      <polygon fill="url(#unseen)" points={`${at.x(0)},${2 * at.height} ${lens} ${bottom} ${at.x(endM)},${2 * at.height}`} />
      <polyline className="edge" points={`${top} ${lens} ${bottom}`} />
    </>
  );
}

function Camera({ frame: { camera }, at }: { frame: FrameDraft; at: Drawing }) {
  return (
    <g className="camera" transform={`translate(${at.x(0)} ${at.y(camera.heightM)}) rotate(${-camera.tiltDeg})`}>
      <rect x={-34} y={-11} width={26} height={22} rx={3} />
      <rect x={-8} y={-6} width={8} height={12} />
    </g>
  );
}

/** Under this a mouth is that of somebody who sits. */
const SITS_UNDER_M = 1.3;
const SEAT_M = 0.45;

/** Somebody who stands or sits: a head with its nose where they look, shoulders, legs to the ground. */
function Figure({ awayM, mouthM, facing, at }: { awayM: number; mouthM: number; facing: number; at: Drawing }) {
  const x = at.x(awayM);
  const m = at.perM;
  const mouth = at.y(mouthM);
  const sits = mouthM < SITS_UNDER_M;
  const hips = at.y(sits ? SEAT_M : mouthM * 0.55);
  const side = facing < -0.3 ? -1 : facing > 0.3 ? 1 : 0;
  const ahead = sits ? (side === 0 ? 1 : side) * 0.42 * m : 0;
  return (
    <g className="talker">
      <circle cx={x - side * 0.09 * m} cy={mouth - 0.06 * m} r={0.11 * m} />
      <line x1={x} y1={mouth} x2={x + side * 0.035 * m} y2={mouth} />
      <path
        d={`M ${x - (side * 0.09 + 0.17) * m} ${hips} L ${x - (side * 0.09 + 0.2) * m} ${mouth + 0.24 * m} Q ${x - side * 0.09 * m} ${mouth + 0.08 * m} ${x - (side * 0.09 - 0.2) * m} ${mouth + 0.24 * m} L ${x - (side * 0.09 - 0.17) * m} ${hips} Z`}
      />
      <path
        d={
          sits
            ? `M ${x - side * 0.09 * m} ${hips} L ${x - side * 0.09 * m + ahead} ${hips} L ${x - side * 0.09 * m + ahead} ${at.y(0)}`
            : `M ${x - (side * 0.09 + 0.1) * m} ${hips} L ${x - (side * 0.09 + 0.13) * m} ${at.y(0)} M ${x - (side * 0.09 - 0.1) * m} ${hips} L ${x - (side * 0.09 - 0.13) * m} ${at.y(0)}`
        }
      />
    </g>
  );
}
