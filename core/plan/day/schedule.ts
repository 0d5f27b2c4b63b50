import type { FactorKind } from '../../domain/factor.ts';
import type { PlanDraft } from '../../domain/plan.ts';
import type { Station } from '../../domain/station.ts';
import { candidatesOf } from '../../domain/take.ts';
import type { PlannedTake } from '../gather.ts';
import { planTime } from '../time.ts';
import { isDark, type SunTimes, sunTimes } from './sun.ts';

const MINUTE_MS = 60_000;
const DAY_MS = 86_400_000;

/** A stretch of the day. */
export interface DayEntry {
  kind: 'change' | 'take' | 'break' | 'batteries';
  startsAtMs: number;
  endsAtMs: number;
  /** Place of the take in the order that it is, or that it comes before. */
  takeIndex: number;
  changed: FactorKind[];
  /** Candidates whose batteries are changed. */
  chainIds: string[];
}

/** Sunrise and sunset at a station. */
export interface StationSun extends SunTimes {
  stationId: string;
}

export interface Day {
  entries: DayEntry[];
  finishesAtMs: number;
  /** Takes at stations that need daylight which begin or end while the sun is down there. */
  inTheDark: number[];
  /** Stations of the day that need daylight and have no position: nobody can say whether they will have it. */
  lightUnknown: string[];
  /** The sun at each station with a position, a row for each day that the day of work reaches into. */
  suns: StationSun[];
  /** How much the last take ends after the time at which the day has to be over; 0 when it does not. */
  lateMs: number;
}

export interface DayContext {
  stations: readonly Pick<Station, 'id' | 'needsDaylight' | 'latitudeDeg' | 'longitudeDeg'>[];
  lengthS: (scriptId: string) => number;
  /** Running time of the link that stops first, by chain id; a chain without one is not watched. */
  runningTimeH: ReadonlyMap<string, number>;
}

/**
 * The day minute by minute: changes and takes in their order from the start on, each break at the first
 * moment between takes after its time has come, batteries changed before a take that they would not
 * last through.
 */
export function schedule(takes: readonly PlannedTake[], plan: PlanDraft, startsAtMs: number, context: DayContext): Day {
  const { takes: times } = planTime(takes, plan, context.lengthS);
  const breaks = [...plan.day.breaks].sort((a, b) => a.startsAtMs - b.startsAtMs);
  const freshAtMs = new Map([...context.runningTimeH.keys()].map((id) => [id, startsAtMs]));
  const entries: DayEntry[] = [];
  let clockMs = startsAtMs;
  const add = (kind: DayEntry['kind'], lengthMs: number, takeIndex: number, extra: Partial<DayEntry> = {}) => {
    if (lengthMs <= 0) return;
    entries.push({ kind, startsAtMs: clockMs, endsAtMs: clockMs + lengthMs, takeIndex, changed: [], chainIds: [], ...extra });
    clockMs += lengthMs;
  };
  takes.forEach((take, takeIndex) => {
    const { changed, changeS, takeS } = times[takeIndex] as (typeof times)[number];
    while (breaks[0] && breaks[0].startsAtMs <= clockMs) add('break', (breaks.shift() as (typeof breaks)[number]).lengthMin * MINUTE_MS, takeIndex);
    const endMs = clockMs + (changeS + takeS) * 1000;
    const flat = candidatesOf(take).filter((id) => {
      const hours = context.runningTimeH.get(id);
      return hours !== undefined && endMs - (freshAtMs.get(id) as number) > hours * 60 * MINUTE_MS;
    });
    if (flat.length > 0) {
      add('batteries', plan.day.batteryChangeMin * MINUTE_MS, takeIndex, { chainIds: flat });
      for (const id of flat) freshAtMs.set(id, clockMs);
    }
    add('change', changeS * 1000, takeIndex, { changed });
    add('take', takeS * 1000, takeIndex);
  });
  const visited = new Set(takes.map((take) => take.condition.station));
  const suns: StationSun[] = [];
  const lightUnknown: string[] = [];
  const positions = new Map<string, [latitudeDeg: number, longitudeDeg: number]>();
  for (const { id, needsDaylight, latitudeDeg, longitudeDeg } of context.stations) {
    if (latitudeDeg === null || longitudeDeg === null) {
      if (needsDaylight && visited.has(id)) lightUnknown.push(id);
      continue;
    }
    if (needsDaylight) positions.set(id, [latitudeDeg, longitudeDeg]);
    for (let dayMs = startsAtMs; dayMs === startsAtMs || dayMs < clockMs + DAY_MS / 2; dayMs += DAY_MS) {
      const sun = sunTimes(dayMs, latitudeDeg, longitudeDeg);
      // Of the days after the first only what lies before the end matters.
      if (dayMs === startsAtMs || (sun.sunriseMs !== null && sun.sunriseMs < clockMs)) suns.push({ stationId: id, ...sun });
    }
  }
  const inTheDark = entries.flatMap((entry) => {
    const position = entry.kind === 'take' ? positions.get(takes[entry.takeIndex]?.condition.station ?? '') : undefined;
    return position && [entry.startsAtMs, entry.endsAtMs].some((atMs) => isDark(atMs, ...position)) ? [entry.takeIndex] : [];
  });
  const lateMs = plan.day.endsAtMs === null ? 0 : Math.max(0, clockMs - plan.day.endsAtMs);
  return { entries, finishesAtMs: clockMs, inTheDark, lightUnknown, suns, lateMs };
}
