import type { WalkEntry } from '../domain/walk.ts';
import type { WalkPoint, WalkTrack } from './walkTrack.ts';

/** A drawing of a walk in metres, north up. */
export interface WalkMap {
  /** The part of the ground that is drawn. */
  westM: number;
  eastM: number;
  southM: number;
  northM: number;
  /** A round length for the scale. */
  scaleM: number;
  points: WalkPoint[];
  /** What was pressed, where the talker was then. */
  entries: (Pick<WalkPoint, 'eastM' | 'northM'> & { entry: WalkEntry })[];
}

const LEAST_WIDE_M = 20;
const MARGIN = 0.12;
const SCALES_M = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];
/** A press is where the talker was at that moment, if a point is near in time. */
const NEAR_MS = 15_000;

/** The way as it is drawn, with what was pressed on it: as large as the walk was, square, north up. */
export function walkMap(track: WalkTrack, walk: readonly WalkEntry[]): WalkMap {
  const { points } = track;
  const east = [0, ...points.map(({ eastM }) => eastM)];
  const north = [0, ...points.map(({ northM }) => northM)];
  const [west, right, south, up] = [Math.min(...east), Math.max(...east), Math.min(...north), Math.max(...north)];
  const wide = Math.max(LEAST_WIDE_M, right - west, up - south) * (1 + 2 * MARGIN);
  const [middleE, middleN] = [(west + right) / 2, (south + up) / 2];
  const entries = walk.flatMap((entry) => {
    const near = nearest(points, entry.atMs);
    if (!near || entry.what === 'receiver') return [];
    return [{ entry, eastM: near.eastM, northM: near.northM }];
  });
  const scaleM = SCALES_M.findLast((metres) => metres <= wide / 3) ?? 1;
  return { westM: middleE - wide / 2, eastM: middleE + wide / 2, southM: middleN - wide / 2, northM: middleN + wide / 2, scaleM, points, entries };
}

function nearest(points: readonly WalkPoint[], atMs: number): WalkPoint | null {
  let best: WalkPoint | null = null;
  for (const point of points) if (!best || Math.abs(point.atMs - atMs) < Math.abs(best.atMs - atMs)) best = point;
  return best && Math.abs(best.atMs - atMs) <= NEAR_MS ? best : null;
}
