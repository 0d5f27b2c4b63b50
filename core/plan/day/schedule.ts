import type { FactorKind } from '../../domain/factor.ts';
import type { PlanDraft } from '../../domain/plan.ts';
import type { Station } from '../../domain/station.ts';
import type { PlannedTake } from '../gather.ts';
import { planTime } from '../time.ts';
import { sunTimes } from './sun.ts';

const MINUTE_MS = 60_000;

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

export interface Day {
  entries: DayEntry[];
  finishesAtMs: number;
  /** Takes at stations that need daylight which end after sunset or begin before sunrise there. */
  inTheDark: number[];
  /** Sunset at each station with a position, by station id. */
  sunsets: { stationId: string; sunriseMs: number | null; sunsetMs: number | null }[];
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
    const flat = take.candidateIds.filter((id) => {
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
  const sunsets = context.stations.flatMap(({ id, latitudeDeg, longitudeDeg }) =>
    latitudeDeg === null || longitudeDeg === null ? [] : [{ stationId: id, ...sunTimes(startsAtMs, latitudeDeg, longitudeDeg) }],
  );
  const lit = new Set(context.stations.filter((station) => station.needsDaylight).map((station) => station.id));
  const inTheDark = entries.flatMap((entry) => {
    const stationId = takes[entry.takeIndex]?.condition.station ?? '';
    const sun = sunsets.find((each) => each.stationId === stationId);
    if (entry.kind !== 'take' || !sun || !lit.has(stationId)) return [];
    const early = sun.sunriseMs !== null && entry.startsAtMs < sun.sunriseMs;
    return early || (sun.sunsetMs !== null && entry.endsAtMs > sun.sunsetMs) ? [entry.takeIndex] : [];
  });
  const lateMs = plan.day.endsAtMs === null ? 0 : Math.max(0, clockMs - plan.day.endsAtMs);
  return { entries, finishesAtMs: clockMs, inTheDark, sunsets, lateMs };
}
