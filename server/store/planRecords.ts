import { runningTimes } from '@marvet/core/chain/burden';
import { type Day, schedule } from '@marvet/core/plan/day/schedule';
import { alignPlan, emptyPlan } from '@marvet/core/plan/followRecords';
import type { PlanRow } from './records.ts';
import type { ReadTables } from './store.ts';
import { IsNull, present } from './table.ts';

/** Records of a trial that a plan speaks of, without what is in the bin. */
export async function planRecords(tables: ReadTables, trialId: string) {
  const here = { where: present(trialId), order: { position: 'ASC' as const } };
  const [chains, stations, scripts, items, placements, rigs] = await Promise.all([
    tables.chains.find({ ...here, where: { ...here.where, candidate: true } }),
    tables.stations.find(here),
    tables.scripts.find(here),
    tables.items.find({ where: { binnedAtMs: IsNull() } }),
    tables.placements.find({ where: here.where }),
    tables.rigs.find({ where: here.where }),
  ]);
  return { chains, stations, scripts, items, placements, rigs };
}

/** The plan of a trial as its records are now. */
export async function currentPlan(tables: ReadTables, trialId: string): Promise<PlanRow> {
  const { chains, stations, scripts, placements, rigs } = await planRecords(tables, trialId);
  const stored = (await tables.plans.findOneBy({ trialId })) ?? { ...emptyPlan(), trialId, version: 1, committedAtMs: null };
  return { ...stored, ...alignPlan(stored, { candidate: chains, station: stations, script: scripts, placement: placements, rig: rigs }) };
}

/** The takes of a trial in their order, and the day that they make; no day while it has no start. */
export async function committedDay(tables: ReadTables, trialId: string) {
  const plan = await currentPlan(tables, trialId);
  const records = await planRecords(tables, trialId);
  const takes = await tables.takes.find({ where: present(trialId), order: { position: 'ASC', pass: 'ASC' } });
  const { startsAtMs } = plan.day;
  const lengthS = (id: string) => records.scripts.find((script) => script.id === id)?.lengthS ?? 10;
  const context = { stations: records.stations, lengthS, runningTimeH: runningTimes(records.chains, records.items) };
  const day: Day | null = startsAtMs === null ? null : schedule(takes, plan, startsAtMs, context);
  return { plan, takes, day, ...records };
}
