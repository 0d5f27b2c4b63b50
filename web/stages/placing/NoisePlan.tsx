import type { Acoustics, NoiseSource } from '@marvet/core/domain/station';
import { bestAim } from '@marvet/core/place/bestAim';
import { useMemo } from 'react';
import type { Drawing } from './drawing.ts';
import { MovedSpot } from './MovedSpot.tsx';
import type { StationListener } from './stationListeners.ts';

interface NoisePlanProps {
  acoustics: Acoustics;
  listeners: readonly StationListener[];
  onMove: (sources: NoiseSource[], byKey: boolean) => void;
  onRest: () => void;
}

const WIDTH = 640;
const MOST_HEIGHT = 300;
const LEAST_REACH_M = 2;
const MOST_REACH_M = 60;
/** Where the talker stands in the room, as shares of its length and width. */
const [MARK_ALONG, MARK_ACROSS] = [0.45, 0.43];
/** Height of a line of words in the drawing. */
const LINE = 15;
const held = (metres: number) => Math.round(100 * Math.max(-200, Math.min(200, metres))) / 100;

/** The talker's mark in the middle, away from the camera to the right, to the camera's right downwards. */
function planDrawing({ sources, sizeM }: Acoustics, listeners: readonly StationListener[]): Drawing {
  const mark = listeners[0]?.frame.talkers[0];
  const aways = [LEAST_REACH_M, -LEAST_REACH_M, ...sources.map(({ awayM }) => awayM), -(mark?.awayM ?? 0), ...(sizeM ? [-MARK_ALONG * sizeM[0], (1 - MARK_ALONG) * sizeM[0]] : [])];
  const acrosses = [1.2, -1.2, ...sources.map(({ acrossM }) => acrossM), ...(sizeM ? [-MARK_ACROSS * sizeM[1], (1 - MARK_ACROSS) * sizeM[1]] : [])];
  const within = (metres: number) => Math.max(-MOST_REACH_M, Math.min(MOST_REACH_M, metres));
  const [left, right] = [within(Math.min(...aways)) - 0.6, within(Math.max(...aways)) + 0.6];
  const [up, down] = [within(Math.min(...acrosses)) - 0.5, within(Math.max(...acrosses)) + 0.5];
  const perM = Math.min(WIDTH / (right - left), MOST_HEIGHT / (down - up));
  const spare = (WIDTH / perM - (right - left)) / 2;
  return { width: WIDTH, height: (down - up) * perM, perM, x: (metres) => (metres - left + spare) * perM, y: (metres) => (metres - up) * perM };
}

/** A station from above, to scale: the talker's mark, what listens, what is heard; each source is moved by pointer or by key. */
export function NoisePlan({ acoustics, listeners, onMove, onRest }: NoisePlanProps) {
  const { sources, sizeM } = acoustics;
  const at = planDrawing(acoustics, listeners);
  const aims = useMemo(() => listeners.map(({ frame, boom }) => bestAim(frame, boom, acoustics)), [listeners, acoustics]);
  const talkers = listeners[0]?.frame.talkers ?? [];
  const mark = talkers[0] ?? { awayM: 0, acrossM: 0 };
  const x = (awayM: number) => at.x(awayM - mark.awayM);
  const y = (acrossM: number) => at.y(acrossM - mark.acrossM);
  return (
    <figure className="placing" aria-label="The place from above">
      <svg viewBox={`0 0 ${at.width} ${at.height}`} aria-hidden>
        {sizeM && <rect className="room" x={at.x(-MARK_ALONG * sizeM[0])} y={at.y(-MARK_ACROSS * sizeM[1])} width={sizeM[0] * at.perM} height={sizeM[1] * at.perM} />}
        <line className="hatch" x1={at.x(0)} y1={0} x2={at.x(0)} y2={at.height} />
        <g className="camera">
          <rect x={x(0) - 12} y={y(0) - 7} width={16} height={14} />
        </g>
        {listeners.map(({ boom, frame, name }, index) => {
          const mouth = frame.talkers[boom.aimsAt] ?? mark;
          return (
            <g key={boom.id} className="boom">
              <line className="sight" x1={x(boom.awayM)} y1={y(boom.acrossM)} x2={x(mouth.awayM)} y2={y(mouth.acrossM)} />
              <BestAim aim={aims[index] ?? null} x={x(boom.awayM)} y={y(boom.acrossM)} />
              <circle className="listener" cx={x(boom.awayM)} cy={y(boom.acrossM)} r={6} />
              <text className="name" x={x(boom.awayM) - 12} y={y(boom.acrossM) + 4 + LINE * (index - (listeners.length - 1) / 2)} textAnchor="end">
                {name}
              </text>
            </g>
          );
        })}
        {talkers.map((talker) => (
          <g key={talker.id} className="talker">
            <circle cx={x(talker.awayM)} cy={y(talker.acrossM)} r={Math.max(7, 0.12 * at.perM)} />
            <text className="name" x={x(talker.awayM)} y={y(talker.acrossM) + Math.max(7, 0.12 * at.perM) + 15} textAnchor="middle">
              {talker.name}
            </text>
          </g>
        ))}
        {sources.map((source) => (
          <g key={source.id} className="source">
            {[10, 17, 24].map((radius) => (
              <circle key={radius} cx={at.x(source.awayM)} cy={at.y(source.acrossM)} r={radius} />
            ))}
            <text className="name" x={at.x(source.awayM)} y={at.y(source.acrossM) + 40} textAnchor="middle">
              {source.name} {source.levelDba} dB A
            </text>
          </g>
        ))}
      </svg>
      {sources.map((source, index) => (
        <MovedSpot
          key={source.id}
          label={`${source.name}, ${source.awayM.toFixed(1)} m behind the talker, ${source.acrossM.toFixed(1)} m to the right: arrow keys move`}
          at={at}
          x={at.x(source.awayM)}
          y={at.y(source.acrossM)}
          stepM={0.1}
          onMove={({ right, up }, byKey) =>
            onMove(
              sources.map((each, place) => (place === index ? { ...each, awayM: held(each.awayM + right), acrossM: held(each.acrossM - up) } : each)),
              byKey,
            )
          }
          onRest={onRest}
        />
      ))}
    </figure>
  );
}

const AIM_LENGTH = 46;

/** Where a microphone would have to look for more voice over noise, as an arrow; nothing where the mouth is as good. */
function BestAim({ aim, x, y }: { aim: ReturnType<typeof bestAim>; x: number; y: number }) {
  if (!aim) return null;
  const level = Math.hypot(aim.axis.awayM, aim.axis.acrossM);
  const angle = (Math.atan2(aim.axis.acrossM, aim.axis.awayM) * 180) / Math.PI;
  const length = 10 + AIM_LENGTH * level;
  return <path className="best-aim" transform={`translate(${x} ${y}) rotate(${angle})`} d={`M 8 0 L ${length} 0 M ${length - 8} -5 L ${length} 0 L ${length - 8} 5`} />;
}
