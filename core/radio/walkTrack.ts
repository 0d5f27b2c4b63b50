import type { TrackPoint, WalkEntry } from '../domain/walk.ts';
import { fromPlace, metresBetween, type Place } from './bearing.ts';

/** A point of a walk, as metres from the receiver. */
export interface WalkPoint extends TrackPoint {
  eastM: number;
  northM: number;
  distanceM: number;
}

/** The way of a walk. */
export interface WalkTrack {
  receiver: Place;
  /** Whether somebody said where the receiver stands; else it is taken where the track begins. */
  receiverSaid: boolean;
  points: WalkPoint[];
}

/** The track of a walk from the receiver on; null where nobody knew where the talker was. */
export function walkTrack(points: readonly TrackPoint[], walk: readonly WalkEntry[]): WalkTrack | null {
  const sorted = [...points].sort((a, b) => a.atMs - b.atMs);
  const [first] = sorted;
  if (!first) return null;
  const said = walk.flatMap((entry) => (entry.what === 'receiver' ? [entry] : [])).at(-1);
  const receiver = { latitudeDeg: (said ?? first).latitudeDeg, longitudeDeg: (said ?? first).longitudeDeg };
  const placed = sorted.map((point) => ({ ...point, ...fromPlace(receiver, point), distanceM: metresBetween(receiver, point) }));
  return { receiver, receiverSaid: said !== undefined, points: placed };
}

/** A known distance at a moment. */
interface Known {
  atMs: number;
  distanceM: number;
}

/** A point that is farther off in time than this says nothing of a moment. */
const NEAR_MS = 15_000;

/**
 * How far the talker was from the receiver at a moment. Marks on the ground win, since a position is off by metres: between two
 * marks the way is taken as even; before the first and after the last the track counts, else for a little while the mark itself. Null
 * where neither says.
 */
export function distanceAt(atMs: number, walk: readonly WalkEntry[], track: WalkTrack | null): number | null {
  const marks = walk.flatMap((entry): Known[] => (entry.what === 'mark' ? [entry] : []));
  const bracketed = marks.some((mark) => mark.atMs <= atMs) && marks.some((mark) => mark.atMs >= atMs);
  if (bracketed) return between(atMs, marks, Number.POSITIVE_INFINITY);
  return (track ? between(atMs, track.points, NEAR_MS) : null) ?? between(atMs, marks, NEAR_MS);
}

/** @param known in the order of time */
function between(atMs: number, known: readonly Known[], nearMs: number): number | null {
  const after = known.find((each) => each.atMs >= atMs);
  const before = known.findLast((each) => each.atMs <= atMs);
  if (before && after) {
    if (after.atMs === before.atMs) return after.distanceM;
    if (after.atMs - before.atMs > 2 * nearMs) return null;
    const share = (atMs - before.atMs) / (after.atMs - before.atMs);
    return before.distanceM + share * (after.distanceM - before.distanceM);
  }
  const end = before ?? after;
  return end && Math.abs(end.atMs - atMs) <= nearMs ? end.distanceM : null;
}
