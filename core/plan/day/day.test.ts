import { describe, expect, it } from 'vitest';
import type { DayPlan, PlanDraft } from '../../domain/plan.ts';
import { planOf, takesOf } from '../../testing/plans.ts';
import type { PlannedTake } from '../gather.ts';
import { dropFirst } from './dropFirst.ts';
import { type DayContext, schedule } from './schedule.ts';
import { isDark, sunTimes } from './sun.ts';

const MINUTE_MS = 60_000;
const clock = (text: string) => Date.parse(text);

/** Rise and set as almanacs print them, to the minute, in the zone's own time. */
const PUBLISHED = [
  ['51.5 N, 0.1 W, June', '2024-06-20', 51.5074, -0.1278, '2024-06-20T04:43+01:00', '2024-06-20T21:21+01:00'],
  ['51.5 N, 0.1 W, December', '2024-12-21', 51.5074, -0.1278, '2024-12-21T08:04Z', '2024-12-21T15:53Z'],
  ['40.7 N, 74.0 W, June', '2024-06-20', 40.7128, -74.006, '2024-06-20T05:25-04:00', '2024-06-20T20:31-04:00'],
  ['40.7 N, 74.0 W, December', '2024-12-21', 40.7128, -74.006, '2024-12-21T07:17-05:00', '2024-12-21T16:32-05:00'],
  ['33.9 S, 151.2 E, December', '2024-12-21', -33.8688, 151.2093, '2024-12-21T05:41+11:00', '2024-12-21T20:05+11:00'],
] as const;

describe('sunrise and sunset', () => {
  it.each(PUBLISHED)('%s: within two minutes of the almanac', (_where, day, latitude, longitude, rise, set) => {
    const noonMs = clock(`${day}T12:00Z`) - (longitude / 15) * 3_600_000;
    const { sunriseMs, sunsetMs } = sunTimes(noonMs, latitude, longitude);
    expect(Math.abs((sunriseMs as number) - clock(rise))).toBeLessThanOrEqual(2 * MINUTE_MS);
    expect(Math.abs((sunsetMs as number) - clock(set))).toBeLessThanOrEqual(2 * MINUTE_MS);
  });

  it('does not rise or set above the circle at midsummer', () => {
    expect(sunTimes(clock('2024-06-20T12:00Z'), 69.65, 18.96)).toEqual({ sunriseMs: null, sunsetMs: null, allDay: 'light' });
  });
});

describe('light where the sun does not rise or set as usual', () => {
  const TROMS = [69.65, 18.96] as const;
  it.each([
    ['noon of the polar night', '2024-12-21T10:42Z', true],
    ['midnight of the polar day', '2024-06-20T22:45Z', false],
    ['noon in March', '2024-03-20T11:00Z', false],
    ['midnight in March', '2024-03-20T23:00Z', true],
  ])('%s', (_when, at, dark) => expect(isDark(clock(at), ...TROMS)).toBe(dark));

  const night = (startsAt: string, latitudeDeg: number | null, longitudeDeg: number | null) => {
    const plan = planOf({ distance: 14 });
    return schedule(takesOf(plan, true), { ...plan, overheadS: 3000 }, clock(startsAt), {
      stations: [{ id: 'station1', needsDaylight: true, latitudeDeg, longitudeDeg }],
      lengthS: () => 60,
      runningTimeH: new Map(),
    });
  };
  it('a day of work in the polar night is dark from end to end', () => {
    expect(night('2024-12-21T08:00Z', ...TROMS).inTheDark).toHaveLength(14);
  });
  it('a night of work is light again after the second sunrise', () => {
    const { inTheDark, suns, finishesAtMs } = night('2024-03-20T20:00Z', 51.5074, -0.1278);
    expect(inTheDark[0]).toBe(0);
    expect(finishesAtMs).toBeGreaterThan(clock('2024-03-21T06:05Z'));
    expect(inTheDark).not.toContain(13);
    expect(suns).toHaveLength(2);
  });
  it('a station that needs daylight and has no position is named, not taken for light', () => {
    expect(night('2024-03-20T20:00Z', null, null)).toMatchObject({ inTheDark: [], lightUnknown: ['station1'] });
  });
});

describe('a day', () => {
  const START = clock('2026-03-20T09:00Z');
  const context = (change: Partial<DayContext> = {}): DayContext => ({ stations: [], lengthS: () => 35, runningTimeH: new Map(), ...change });
  const day = (change: Partial<DayPlan>, plan: PlanDraft = planOf({ distance: 4 })): PlanDraft => ({ ...plan, day: { ...plan.day, ...change } });
  const rigging = 900 + 300 + 90 + 60 + 15;

  it('is rigging, takes of a minute, and a minute for each new distance', () => {
    const plan = day({});
    const { entries, finishesAtMs } = schedule(takesOf(plan, true), plan, START, context());
    expect(entries.map((entry) => entry.kind)).toEqual(['change', 'take', 'change', 'take', 'change', 'take', 'change', 'take']);
    expect(finishesAtMs - START).toBe((rigging + 4 * 60 + 3 * 60) * 1000);
    entries.slice(1).forEach((entry, index) => expect(entry.startsAtMs).toBe(entries[index]?.endsAtMs));
  });

  it('takes a break at the first moment between takes after its time', () => {
    const plan = day({ breaks: [{ startsAtMs: START + (rigging + 30) * 1000, lengthMin: 30 }] });
    const { entries, finishesAtMs } = schedule(takesOf(plan, true), plan, START, context());
    expect(entries.slice(0, 4).map((entry) => entry.kind)).toEqual(['change', 'take', 'break', 'change']);
    expect(entries[2]?.startsAtMs).toBe(START + (rigging + 60) * 1000);
    expect(finishesAtMs - START).toBe((rigging + 7 * 60 + 30 * 60) * 1000);
  });

  it('changes batteries before the take that they would not last through', () => {
    const plan = day({ batteryChangeMin: 5 });
    const runningTimeH = new Map([['candidate1', (rigging + 3 * 60) / 3600]]);
    const { entries } = schedule(takesOf(plan, true), plan, START, context({ runningTimeH }));
    const change = entries.findIndex((entry) => entry.kind === 'batteries');
    // Rigging and a take fit, then a change and a take just fit; the third take would not.
    expect(entries[change]).toMatchObject({ takeIndex: 2, chainIds: ['candidate1'] });
    expect(entries.filter((entry) => entry.kind === 'batteries')).toHaveLength(1);
  });

  it('names the takes that would be in the dark, and how late the day ends', () => {
    const plan = day({ endsAtMs: START + (rigging + 5 * 60) * 1000 });
    const station = { id: 'station1', needsDaylight: true, latitudeDeg: 51.5074, longitudeDeg: -0.1278 };
    const lateStart = clock('2024-12-21T15:53Z') - (rigging + 3 * 60) * 1000;
    const late = schedule(takesOf(plan, true), plan, lateStart, context({ stations: [station] }));
    expect(late.inTheDark.length).toBeGreaterThan(0);
    expect(late.inTheDark).not.toContain(0);
    expect(schedule(takesOf(plan, true), plan, lateStart, context({ stations: [{ ...station, needsDaylight: false }] })).inTheDark).toEqual([]);
    expect(schedule(takesOf(plan, true), plan, START, context()).lateMs).toBe(2 * 60 * 1000);
  });
});

describe('what to drop first when it gets late', () => {
  const times = { changeTimesS: planOf({}).changeTimesS, changeExceptions: [], takeS: () => 60 };

  it('of two that lose alike the one that saves the travel', () => {
    const plan = planOf({ station: 2, distance: 2 });
    const [near, far] = takesOf(plan, true).filter((take) => take.condition.distance === 'distance1') as [PlannedTake, PlannedTake];
    // Each is done more than once; the one between the two far ones costs the drive there and back.
    const [first] = dropFirst([near, near, far, near, far], times, 1);
    expect(first).toMatchObject({ takeIndex: 3, savedS: 60 + 2 * 900 });
  });

  it('a repeat before anything else: nothing is lost with it', () => {
    const takes = takesOf(planOf({ distance: 2 }), true);
    const withRepeat = [takes[0], takes[1], takes[1]] as typeof takes;
    expect(dropFirst(withRepeat, times, 1)).toMatchObject([{ takeIndex: 2, lossComparisons: 0.5, lostForGood: 0, savedS: 60 }]);
  });

  it('the only pair of a comparison last', () => {
    // Three distances with speech at one station, two of them at another as well.
    const plan = planOf({ station: 2, distance: 3 });
    const takes = takesOf(plan, true).filter((take) => !(take.condition.station === 'station2' && take.condition.distance === 'distance3'));
    const order = dropFirst(takes, times, takes.length);
    const only = takes.findIndex((take) => take.condition.distance === 'distance3');
    expect(order.findIndex((each) => each.takeIndex === only)).toBeGreaterThan(0);
    expect(order[0]?.lostForGood).toBe(0);
  });

  it('ranks each as if those before were dropped, so that two halves of a pair do not both look cheap', () => {
    const takes = takesOf(planOf({ distance: 2, script: 2 }), true);
    const order = dropFirst(takes, times, 3);
    expect(order[0]?.lostForGood).toBe(0);
    expect(order[1]?.lostForGood).toBeGreaterThan(0);
  });
});
