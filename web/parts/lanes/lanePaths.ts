import type { LevelSeries } from '@marvet/core/measure/report.types';

/** The level as a closed area over a base line; where samples are closer than the eye can tell, the highest of each few. */
export function levelPath(series: LevelSeries, fromS: number, toS: number, x: (seconds: number) => number, y: (db: number) => number, base: number): string {
  const first = Math.max(0, Math.floor(fromS / series.stepS) - 1);
  const end = Math.min(series.rmsDbfs.length, Math.ceil(toS / series.stepS) + 1);
  const merged = Math.max(1, Math.ceil((end - first) / 1400));
  const points: string[] = [];
  for (let at = first; at < end; at += merged) {
    const part = series.rmsDbfs.slice(at, Math.min(end, at + merged));
    points.push(`${x((at + part.length / 2) * series.stepS).toFixed(1)},${y(Math.max(...part)).toFixed(1)}`);
  }
  return `M${x(first * series.stepS).toFixed(1)},${base} L${points.join(' L')} L${x(end * series.stepS).toFixed(1)},${base} Z`;
}

/** Round moments, at most so many. */
export function ticks(fromS: number, toS: number, most: number): { atS: number; text: string }[] {
  const everyS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 30, 60, 300, 600].find((seconds) => (toS - fromS) / seconds <= most) ?? 3600;
  const digits = everyS < 1 ? 1 : 0;
  const first = Math.ceil(fromS / everyS - 1e-9);
  return Array.from({ length: Math.floor(toS / everyS + 1e-9) - first + 1 }, (_, index) => ({
    atS: (first + index) * everyS,
    text: `${((first + index) * everyS).toFixed(digits)} s`,
  }));
}
