import { isSpoiled, setupSpanMs, type Take, type TakeSetup } from '../domain/take.ts';
import type { WalkEntry, WalkHeading, WalkSide } from '../domain/walk.ts';
import { type RangeWindow, WINDOW_S } from './rangeModel.ts';
import { distanceAt, type WalkTrack } from './walkTrack.ts';

/** Ten seconds of a walk on one setup. */
export interface WalkWindow extends RangeWindow {
  atMs: number;
  side: WalkSide;
  heading: WalkHeading;
}

const MS = 1000;
const SHORTEST_LEG_S = 2;
/** Nobody walks between receiver and talker: under this a distance has no logarithm worth the name. */
const NEAREST_M = 0.5;

/** Whether a take was walked: somebody passed marks in it, or its track is known. */
export function isWalked(take: Pick<Take, 'walk'>, track: WalkTrack | null): boolean {
  return take.walk.some(({ what }) => what === 'mark') || (track !== null && take.walk.length > 0);
}

/**
 * A walk in windows of ten seconds, leg by leg: how far the talker was in the middle of each, on which leg, and whether the link broke up in
 * it. What was measured of the sound counts, and what was pressed beside it; from "unusable" on every window is broken until
 * "back again". A window without a known distance is left out.
 * @param breakUpsMs when break-ups were measured; null where there is no recording
 */
export function walkWindows(take: Take, setup: TakeSetup, track: WalkTrack | null, breakUpsMs: readonly number[] | null): WalkWindow[] {
  const { walk } = take;
  const span = setupSpanMs(take, setup);
  if (!span || isSpoiled(take)) return [];
  const pressed = pressedMs(take, setup);
  const away = unusable(walk, setup.id, span[1]);
  return legsOf(walk, span).flatMap(([startMs, endMs]) => {
    const parts = Math.max(1, Math.round((endMs - startMs) / (WINDOW_S * MS)));
    return Array.from({ length: parts }, (_, part): WalkWindow | null => {
      const fromMs = startMs + (part * (endMs - startMs)) / parts;
      const toMs = startMs + ((part + 1) * (endMs - startMs)) / parts;
      const atMs = (fromMs + toMs) / 2;
      const distanceM = distanceAt(atMs, walk, track);
      if (distanceM === null) return null;
      const within = (ms: number) => ms >= fromMs && ms < toMs;
      const brokeUp = [...(breakUpsMs ?? []), ...pressed].some(within) || away.some(([from, to]) => from < toMs && to > fromMs);
      return { atMs, distanceM: Math.max(NEAREST_M, distanceM), brokeUp, ...legAt(walk, atMs) };
    }).flatMap((window) => (window ? [window] : []));
  });
}

/** The time of a walk cut where a leg begins: what broke up while turned says nothing of facing. A leg of a moment is none. */
function legsOf(walk: readonly WalkEntry[], [startMs, endMs]: [number, number]): [number, number][] {
  const turns = walk.flatMap(({ what, atMs }) => (what === 'leg' && atMs > startMs && atMs < endMs ? [atMs] : []));
  const edges = [startMs, ...turns, endMs];
  return edges.slice(1).flatMap((toMs, index): [number, number][] => {
    const fromMs = edges[index] as number;
    return toMs - fromMs >= SHORTEST_LEG_S * MS ? [[fromMs, toMs]] : [];
  });
}

/** The leg at a moment; before one was said, out and facing. */
export function legAt(walk: readonly WalkEntry[], atMs: number): { side: WalkSide; heading: WalkHeading } {
  const leg = walk.findLast((entry) => entry.what === 'leg' && entry.atMs <= atMs);
  return leg?.what === 'leg' ? { side: leg.side, heading: leg.heading } : { side: 'facing', heading: 'out' };
}

function pressedMs(take: Take, setup: Pick<TakeSetup, 'id'>): number[] {
  const flags = take.flags.filter(({ flag, setupIds }) => flag === 'break-up' && (setupIds.length === 0 || setupIds.includes(setup.id)));
  const links = take.walk.filter((entry) => entry.what === 'link' && entry.state === 'broke up' && entry.setupIds.includes(setup.id));
  return [...flags, ...links].map(({ atMs }) => atMs);
}

/** When a link was unusable, from one press to the next. */
function unusable(walk: readonly WalkEntry[], setupId: string, endMs: number): [number, number][] {
  const spans: [number, number][] = [];
  let sinceMs: number | null = null;
  for (const entry of walk) {
    if (entry.what !== 'link' || !entry.setupIds.includes(setupId)) continue;
    if (entry.state === 'unusable') sinceMs ??= entry.atMs;
    else if (sinceMs !== null && entry.state === 'back again') {
      spans.push([sinceMs, entry.atMs]);
      sinceMs = null;
    }
  }
  return sinceMs === null ? spans : [...spans, [sinceMs, endMs]];
}
