import { describe, expect, it } from 'vitest';
import { DEFAULT_CHANGE_TIMES } from '../domain/plan.ts';
import type { Station } from '../domain/station.ts';
import { planOf } from '../testing/plans.ts';
import { tickedLevels } from './matrix.ts';
import { type WorkedOutPlan, type WorkOutContext, workOutPlan } from './workOut.ts';

const contextOf = (plan: ReturnType<typeof planOf>): WorkOutContext => ({
  chains: tickedLevels(plan.factors, 'candidate').map(({ id, label }) => ({ id, name: label, links: [], split: null })),
  items: [],
  stations: tickedLevels(plan.factors, 'station').map(({ id, label }) => ({ id, name: label, needsDaylight: false, latitudeDeg: null, longitudeDeg: null }) as Station),
  scripts: [{ id: 'script1', lengthS: 35 }],
});
const worked = (plan: ReturnType<typeof planOf>) => workOutPlan(plan, contextOf(plan)) as WorkedOutPlan;

describe('a plan worked out', () => {
  const plan = planOf({ station: 2, distance: 2, windscreen: 3, candidate: 3 });

  it('counts, times and orders what will be recorded', () => {
    const { cells, built, time, day } = worked(plan);
    expect(cells).toBe(36);
    expect(built.setups).toHaveLength(36);
    expect(built.takes).toHaveLength(12);
    // Rigging 1,365 s; then 1 station, 2 windscreens at each of 2, 6 distances, and 12 takes of a minute.
    expect(time.totalS).toBe(1365 + 900 + 4 * 90 + 6 * 60 + 12 * 60);
    expect(built.costS).toBe(built.boundS);
    expect(day).toBeNull();
  });

  it('says what each design would come to before one is chosen', () => {
    const { takesOfDesign } = worked(plan);
    expect(takesOfDesign.full).toBe(12);
    // Base, one more station, one more distance, two more windscreens.
    expect(takesOfDesign['one change']).toBe(5);
    expect(takesOfDesign.pairs).toBeGreaterThanOrEqual(6);
    expect(takesOfDesign.pairs).toBeLessThan(12);
  });

  it('repeats every take as often as it is asked to', () => {
    expect(worked({ ...plan, repeats: 3 }).built.takes).toHaveLength(36);
  });

  it('records apart where that is wanted, and foresees what it does', () => {
    expect(worked({ ...plan, together: false }).built.takes).toHaveLength(36);
    // At one place with an hour to change the rig, the second candidate comes an hour after the first.
    const slow = planOf({ distance: 3, candidate: 2 }, { together: false, changeTimesS: { ...DEFAULT_CHANGE_TIMES, candidate: 3600 } });
    const apart = worked(slow);
    expect(apart.foreseen.map((finding) => finding.kind)).toEqual(['hours']);
    const [remedy] = apart.foreseen[0]?.remedies ?? [];
    expect(worked({ ...slow, ...remedy?.patch }).foreseen).toEqual([]);
  });

  it('gives the day when it has a start, and how far it has come', () => {
    const shares: number[] = [];
    const started = { ...plan, day: { ...plan.day, startsAtMs: 1_000_000 } };
    const result = workOutPlan(started, contextOf(started), (share) => shares.push(share)) as WorkedOutPlan;
    expect(result.day?.finishesAtMs).toBe(1_000_000 + result.time.totalS * 1000);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });

  it('leaves stations that need daylight for last when the day begins before sunrise there', () => {
    const blocked = (startsAtMs: number) => ({ ...plan, order: { ...plan.order, blockedBy: 'daylight' as const }, day: { ...plan.day, startsAtMs } });
    const first = (startsAtMs: number) => {
      const draft = blocked(startsAtMs);
      const context = contextOf(draft);
      const stations = context.stations.map((station) => ({ ...station, needsDaylight: station.id === 'station2', latitudeDeg: 51.5, longitudeDeg: 0 }));
      return (workOutPlan(draft, { ...context, stations }) as WorkedOutPlan).built.takes[0]?.condition.station;
    };
    expect(first(Date.parse('2024-12-21T06:00Z'))).toBe('station1');
    expect(first(Date.parse('2024-12-21T09:00Z'))).toBe('station2');
  });

  it('does not begin on a matrix that nobody could record', () => {
    const huge = planOf({ station: 20, distance: 20, windscreen: 20, candidate: 10 });
    expect(workOutPlan(huge, contextOf(huge))).toEqual({ tooManyCells: 80_000 });
  });
});
