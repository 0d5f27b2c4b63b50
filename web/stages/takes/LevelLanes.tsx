import { EVENT_KINDS } from '@marvet/core/domain/measureId';
import { EVENT_NAMES } from '@marvet/core/measure/eventNames';
import { eventText } from '@marvet/core/measure/eventWords';
import type { AudioEvent, ChannelReport, LevelSeries, Span } from '@marvet/core/measure/report.types';
import { useId } from 'react';
import { useWidth } from '../../parts/useWidth.ts';
import { levelPath, ticks } from './lanePaths.ts';
import { PerformanceHandles } from './PerformanceHandles.tsx';

const USUAL_WIDTH = 1000;
const LEAST_WIDTH = 280;
const TICK_WIDTH = 60;
const LEFT = 76;
const RIGHT = 8;
const TOP = 8;
const HEIGHT = 150;
const COMPACT_HEIGHT = 80;
const LANE = 20;
const TOP_DB = 0;
const BOTTOM_DB = -90;

interface LevelLanesProps {
  label: string;
  series: LevelSeries;
  report: ChannelReport;
  /** What is shown, in seconds of the file. */
  window: Span;
  atS: number;
  onSeek: (seconds: number) => void;
  onEvent: (event: AudioEvent) => void;
  compact?: boolean;
  /** The part that is judged, and what moves it. */
  performance?: Span | null;
  onPerformance?: (span: Span) => Promise<{ error?: unknown }>;
}

/** Level over time with lanes for words, pauses and each kind of event under it. */
export function LevelLanes({ label, series, report, window: [fromS, toS], atS, onSeek, onEvent, compact = false, performance = null, onPerformance }: LevelLanesProps) {
  const clip = useId();
  // Drawn as wide as it is shown, so that the lettering keeps its size on a phone.
  const [svg, shownWidth] = useWidth<SVGSVGElement>(USUAL_WIDTH);
  const width = Math.max(LEAST_WIDTH, shownWidth);
  const shownS = Math.max(toS - fromS, 0.05);
  const x = (seconds: number) => LEFT + ((seconds - fromS) / shownS) * (width - LEFT - RIGHT);
  const plotHeight = compact ? COMPACT_HEIGHT : HEIGHT;
  const base = TOP + plotHeight;
  const y = (db: number) => TOP + ((TOP_DB - Math.max(BOTTOM_DB, Math.min(TOP_DB, db))) / (TOP_DB - BOTTOM_DB)) * plotHeight;
  const kinds = EVENT_KINDS.filter((kind) => report.events?.some((event) => event.kind === kind));
  const spans: { name: string; className: string; spans: Span[] }[] = [
    { name: 'words', spans: report.activity.speech, className: 'words' },
    { name: 'pauses', spans: report.activity.pause, className: 'pause' },
  ];
  const seen = ([start, end]: Span) => end >= fromS && start <= toS;
  const laneY = (lane: number) => base + 13 + lane * LANE;
  const lanes = spans.length + kinds.length;
  const height = base + 12 + lanes * LANE + 22;
  const click = (event: React.MouseEvent<SVGSVGElement>) => {
    const chosen = (event.target as Element).getAttribute('data-event');
    const happened = chosen === null ? undefined : report.events[Number(chosen)];
    if (happened) return onEvent(happened);
    const box = event.currentTarget.getBoundingClientRect();
    const seconds = fromS + ((((event.clientX - box.left) / box.width) * width - LEFT) / (width - LEFT - RIGHT)) * shownS;
    onSeek(Math.max(fromS, Math.min(toS, seconds)));
  };
  const step = (event: React.KeyboardEvent) => {
    if (event.target !== event.currentTarget) return;
    const by = { ArrowLeft: -shownS / 20, ArrowRight: shownS / 20, Home: -Number.MAX_VALUE, End: Number.MAX_VALUE }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onSeek(Math.max(fromS, Math.min(toS, atS + by)));
  };
  const summary = `${report.activity.speech.length} stretches of words, ${report.activity.pause.length} pauses, ${report.events?.length ?? 0} events`;
  return (
    <div className="lane-wrap">
      <svg
        ref={svg}
        className="lane-chart"
        viewBox={`0 0 ${width} ${height}`}
        role="slider"
        tabIndex={0}
        aria-label={`${label}: ${summary}`}
        aria-valuemin={fromS}
        aria-valuemax={toS}
        aria-valuenow={Math.max(fromS, Math.min(toS, atS))}
        aria-valuetext={`${atS.toFixed(1)} s`}
        onClick={click}
        onKeyDown={step}
      >
        <clipPath id={clip}>
          <rect x={LEFT} y={0} width={width - LEFT - RIGHT} height={height} />
        </clipPath>
        {[0, -20, -40, -60, -80].map((db) => (
          <g key={db}>
            <line className="grid" x1={LEFT} x2={width - RIGHT} y1={y(db)} y2={y(db)} />
            <text x={LEFT - 8} y={y(db) + 4} textAnchor="end">
              {db === 0 ? '0' : `−${-db}`}
            </text>
          </g>
        ))}
        <g clipPath={`url(#${clip})`}>
          <path className="level" d={levelPath(series, fromS, toS, x, y, base)} />
          {spans.map((lane, index) =>
            lane.spans.filter(seen).map(([start, end]) => (
              <rect key={`${lane.name} ${start}`} className={lane.className} x={x(start)} width={Math.max(1, x(end) - x(start))} y={laneY(index)} height={12}>
                <title>
                  {lane.name} {start.toFixed(2)} to {end.toFixed(2)} s
                </title>
              </rect>
            )),
          )}
          {kinds.map((kind, index) =>
            report.events
              .filter((event) => event.kind === kind && seen([event.startS, event.endS]))
              .map((event) => (
                <rect
                  key={`${kind} ${event.startS}`}
                  className={`event ${kind}`}
                  x={x(event.startS) - 1}
                  width={Math.max(5, x(event.endS) - x(event.startS) + 2)}
                  y={laneY(spans.length + index)}
                  height={13}
                  data-event={report.events.indexOf(event)}
                >
                  <title>{eventText(event)}; click to hear it</title>
                </rect>
              )),
          )}
          {performance &&
            [[fromS, performance[0]] as const, [performance[1], toS] as const].map(
              ([start, end]) => end > start && <rect key={start} className="not-judged" x={x(start)} width={x(end) - x(start)} y={TOP} height={plotHeight} />,
            )}
          {atS >= fromS && atS <= toS && atS > 0 && <line className="playhead" x1={x(atS)} x2={x(atS)} y1={TOP} y2={base + 8 + lanes * LANE} />}
        </g>
        {[...spans.map((lane) => lane.name), ...kinds.map((kind) => EVENT_NAMES[kind])].map((name, index) => (
          <text key={name} x={LEFT - 8} y={laneY(index) + 11} textAnchor="end">
            {name}
          </text>
        ))}
        {ticks(fromS, toS, Math.floor((width - LEFT - RIGHT) / TICK_WIDTH)).map(({ atS: tick, text }) => (
          <text key={text} x={x(tick)} y={height - 4} textAnchor="middle">
            {text}
          </text>
        ))}
      </svg>
      {performance && onPerformance && (
        <PerformanceHandles
          performance={performance}
          window={[fromS, toS]}
          lengthS={series.rmsDbfs.length * series.stepS}
          share={(seconds) => x(seconds) / width}
          heightShare={base / height}
          onMove={onPerformance}
        />
      )}
    </div>
  );
}
