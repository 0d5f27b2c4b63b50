import { EVENT_KINDS } from '@marvet/core/domain/measureId';
import { EVENT_NAMES } from '@marvet/core/measure/eventNames';
import type { ShownEvent } from '@marvet/core/measure/events/corrected';
import { eventText } from '@marvet/core/measure/eventWords';
import type { ActivityGroup, AudioEvent, LevelSeries, Span } from '@marvet/core/measure/report.types';
import { type ReactNode, useId } from 'react';
import { useWidth } from '../useWidth.ts';
import { acrossPx, downPx, LevelCurve } from './LevelCurve.tsx';
import { ticks } from './lanePaths.ts';
import { type MovableSpan, SpanHandles } from './SpanHandles.tsx';

export const USUAL_WIDTH = 1000;
export const LEAST_WIDTH = 280;
const TICK_WIDTH = 60;
/** Room beside the plot, for names of lanes. */
export const LEFT = 76;
export const RIGHT = 8;
const TOP = 8;
const HEIGHT = 150;
const COMPACT_HEIGHT = 80;
const LANE = 20;
const TOP_DB = 0;
const BOTTOM_DB = -90;

interface LevelLanesProps {
  label: string;
  series: LevelSeries;
  /** Without words where nobody looked for any. */
  activity: Pick<ActivityGroup, 'pause'> & Partial<Pick<ActivityGroup, 'speech'>>;
  events: readonly ShownEvent[];
  /** What is shown, in seconds of the file. */
  window: Span;
  atS: number;
  onSeek: (seconds: number) => void;
  onEvent: (event: AudioEvent) => void;
  compact?: boolean;
  /** The part that is judged. */
  performance?: Span | null;
  /** Room tone that somebody marked. */
  roomTone?: Span | null;
  /** What can be moved on the picture. */
  movable?: readonly MovableSpan[];
  /** The event that is looked at. */
  chosen?: AudioEvent | null;
  /** What lies over the picture: where a moment lies across it, and how far down the level reaches, both 0 to 1. */
  over?: (share: (seconds: number) => number, heightShare: number) => ReactNode;
}

/** No power of ten is a number to those who read it out. */
const inMs = (seconds: number) => Number(seconds.toFixed(3));

/** Level over time with lanes for words, pauses and each kind of event under it. */
export function LevelLanes(props: LevelLanesProps) {
  const { label, series, activity, events, window, atS, onSeek, onEvent, compact = false, performance = null, roomTone = null, movable = [], chosen = null, over } = props;
  const [fromS, toS] = window;
  const clip = useId();
  // Drawn as wide as it is shown, so that the lettering keeps its size on a phone.
  const [svg, shownWidth] = useWidth<SVGSVGElement>(USUAL_WIDTH);
  const width = Math.max(LEAST_WIDTH, shownWidth);
  const shownS = Math.max(toS - fromS, 0.05);
  const x = (seconds: number) => acrossPx(seconds, window, LEFT, width - RIGHT);
  const plotHeight = compact ? COMPACT_HEIGHT : HEIGHT;
  const base = TOP + plotHeight;
  const scale = { topPx: TOP, basePx: base, topDb: TOP_DB, baseDb: BOTTOM_DB };
  const y = (db: number) => downPx(db, scale);
  const kinds = EVENT_KINDS.filter((kind) => events.some((event) => event.kind === kind));
  const spans: { name: string; className: string; spans: Span[] }[] = [
    ...(activity.speech ? [{ name: 'words', spans: activity.speech, className: 'words' }] : []),
    { name: 'pauses', spans: activity.pause, className: 'pause' },
    ...(roomTone ? [{ name: 'room tone', spans: [roomTone], className: 'room-tone' }] : []),
  ];
  const seen = ([start, end]: Span) => end >= fromS && start <= toS;
  const laneY = (lane: number) => base + 13 + lane * LANE;
  const lanes = spans.length + kinds.length;
  const height = base + 12 + lanes * LANE + 22;
  const click = (event: React.MouseEvent<SVGSVGElement>) => {
    const index = (event.target as Element).getAttribute('data-event');
    const happened = index === null ? undefined : events[Number(index)];
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
  const summary = [...(activity.speech ? [`${activity.speech.length} stretches of words`] : []), `${activity.pause.length} pauses`, `${events.length} events`].join(', ');
  return (
    <div className="lane-wrap">
      <svg
        ref={svg}
        className="lane-chart"
        viewBox={`0 0 ${width} ${height}`}
        role="slider"
        tabIndex={0}
        aria-label={`${label}: ${summary}`}
        aria-valuemin={inMs(fromS)}
        aria-valuemax={inMs(toS)}
        aria-valuenow={inMs(Math.max(fromS, Math.min(toS, atS)))}
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
          <LevelCurve series={series} fromS={fromS} toS={toS} leftPx={LEFT} rightPx={width - RIGHT} {...scale} />
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
            events
              .filter((event) => event.kind === kind && seen([event.startS, event.endS]))
              .map((event) => (
                <rect
                  key={`${kind} ${event.startS}`}
                  className={`event ${kind} ${event === chosen ? 'chosen' : ''} ${event.correctionId ? 'by-hand' : ''}`}
                  x={x(event.startS) - 1}
                  width={Math.max(5, x(event.endS) - x(event.startS) + 2)}
                  y={laneY(spans.length + index)}
                  height={13}
                  data-event={events.indexOf(event)}
                >
                  <title>
                    {eventText(event)}
                    {event.correctionId ? ', marked by hand' : ''}; click to hear it
                  </title>
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
      {movable.map((each) => (
        <SpanHandles
          key={each.className}
          movable={each}
          window={window}
          lengthS={series.rmsDbfs.length * series.stepS}
          share={(seconds) => x(seconds) / width}
          heightShare={base / height}
        />
      ))}
      {over?.((seconds) => x(seconds) / width, base / height)}
    </div>
  );
}
