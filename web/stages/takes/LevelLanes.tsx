import type { ChannelReport, LevelSeries } from '@marvet/core/measure/report.types';

const WIDTH = 1000;
const LEFT = 64;
const PLOT = { top: 8, height: 150 };
const LANE = 20;
const TOP_DB = 0;
const BOTTOM_DB = -90;

interface LevelLanesProps {
  series: LevelSeries;
  report: ChannelReport;
  atS: number;
  onSeek: (seconds: number) => void;
}

/** Level over time with lanes for words and pauses under it. */
export function LevelLanes({ series, report, atS, onSeek }: LevelLanesProps) {
  const lengthS = Math.max(series.rmsDbfs.length * series.stepS, 0.1);
  const x = (seconds: number) => LEFT + (seconds / lengthS) * (WIDTH - LEFT - 8);
  const y = (db: number) => PLOT.top + ((TOP_DB - Math.max(BOTTOM_DB, Math.min(TOP_DB, db))) / (TOP_DB - BOTTOM_DB)) * PLOT.height;
  const base = PLOT.top + PLOT.height;
  const merged = Math.max(1, Math.ceil(series.rmsDbfs.length / 1400));
  const points = Array.from({ length: Math.ceil(series.rmsDbfs.length / merged) }, (_, index) => {
    const part = series.rmsDbfs.slice(index * merged, (index + 1) * merged);
    return `${x((index + 0.5) * merged * series.stepS).toFixed(1)},${y(Math.max(...part)).toFixed(1)}`;
  });
  const lanes = [
    { name: 'words', spans: report.activity.speech, className: 'words' },
    { name: 'pauses', spans: report.activity.pause, className: 'pause' },
  ];
  const everyS = [0.5, 1, 2, 5, 10, 30, 60, 300, 600].find((seconds) => lengthS / seconds <= 14) ?? 3600;
  const height = base + 12 + lanes.length * LANE + 22;
  const seek = (event: React.MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const seconds = ((((event.clientX - box.left) / box.width) * WIDTH - LEFT) / (WIDTH - LEFT - 8)) * lengthS;
    onSeek(Math.max(0, Math.min(lengthS, seconds)));
  };
  const step = (event: React.KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, Home: -lengthS, End: lengthS }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onSeek(Math.max(0, Math.min(lengthS, atS + by)));
  };
  const summary = `${report.activity.speech.length} stretches of words and ${report.activity.pause.length} pauses in ${lengthS.toFixed(1)} s`;
  return (
    <svg
      className="lane-chart"
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="slider"
      tabIndex={0}
      aria-label={`Level over time: ${summary}`}
      aria-valuemin={0}
      aria-valuemax={lengthS}
      aria-valuenow={atS}
      aria-valuetext={`${atS.toFixed(1)} s`}
      onClick={seek}
      onKeyDown={step}
    >
      {[0, -20, -40, -60, -80].map((db) => (
        <g key={db}>
          <line className="grid" x1={LEFT} x2={WIDTH - 8} y1={y(db)} y2={y(db)} />
          <text x={LEFT - 8} y={y(db) + 4} textAnchor="end">
            {db === 0 ? '0' : `−${-db}`}
          </text>
        </g>
      ))}
      <path className="level" d={`M${x(0)},${base} L${points.join(' L')} L${x(lengthS)},${base} Z`} />
      {lanes.map((lane, index) => (
        <g key={lane.name}>
          <text x={LEFT - 8} y={base + 24 + index * LANE} textAnchor="end">
            {lane.name}
          </text>
          {lane.spans.map(([start, end]) => (
            <rect key={start} className={lane.className} x={x(start)} width={Math.max(1, x(end) - x(start))} y={base + 13 + index * LANE} height={12}>
              <title>
                {lane.name} {start.toFixed(2)} to {end.toFixed(2)} s
              </title>
            </rect>
          ))}
        </g>
      ))}
      {Array.from({ length: Math.floor(lengthS / everyS) + 1 }, (_, index) => (
        <text key={`at ${index * everyS}`} x={x(index * everyS)} y={height - 4} textAnchor="middle">
          {index * everyS} s
        </text>
      ))}
      {atS > 0 && <line className="playhead" x1={x(atS)} x2={x(atS)} y1={PLOT.top} y2={base + 8 + lanes.length * LANE} />}
    </svg>
  );
}
