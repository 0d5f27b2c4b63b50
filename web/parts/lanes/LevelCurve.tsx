import type { LevelSeries, Span } from '@marvet/core/measure/report.types';
import { memo } from 'react';
import { levelPath } from './lanePaths.ts';

interface LevelCurveProps {
  series: LevelSeries;
  fromS: number;
  toS: number;
  /** Where the window begins and ends across the picture. */
  leftPx: number;
  rightPx: number;
  topPx: number;
  basePx: number;
  /** Levels at the top and at the base. */
  topDb: number;
  baseDb: number;
}

/** Where a moment lies across the picture. */
export const acrossPx = (seconds: number, [fromS, toS]: Span, leftPx: number, rightPx: number) => leftPx + ((seconds - fromS) / Math.max(toS - fromS, 0.05)) * (rightPx - leftPx);

/** Where a level lies down the picture; what is lower than the base lies on it. */
export const downPx = (db: number, { topPx, basePx, topDb, baseDb }: Pick<LevelCurveProps, 'topPx' | 'basePx' | 'topDb' | 'baseDb'>) =>
  topPx + ((topDb - Math.max(baseDb, Math.min(topDb, db))) / (topDb - baseDb)) * (basePx - topPx);

/** The level as an area; a playhead that moves over it does not draw it again. */
export const LevelCurve = memo(function LevelCurve({ series, fromS, toS, leftPx, rightPx, ...scale }: LevelCurveProps) {
  const x = (seconds: number) => acrossPx(seconds, [fromS, toS], leftPx, rightPx);
  return <path className="level" d={levelPath(series, fromS, toS, x, (db) => downPx(db, scale), scale.basePx)} />;
});
