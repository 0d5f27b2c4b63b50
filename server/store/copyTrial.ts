import { newId } from '@marvet/core/domain/identity';
import { IsNull } from 'typeorm';
import type { TrialRow } from './rows.ts';
import type { Store } from './store.ts';

/**
 * Copies what a trial sets out to do: question, criteria, chains, stations, scripts and plan. Takes,
 * files, listening and the expectation belong to the day and stay behind.
 */
export async function copyTrial(store: Store, from: TrialRow): Promise<TrialRow> {
  const row: TrialRow = {
    ...from,
    id: newId(),
    name: `${from.name} (copy)`.slice(0, 120),
    sample: false,
    createdAtMs: Date.now(),
    binnedAtMs: null,
    expectedCandidateId: null,
    expectedReason: '',
    expectedSealedAtMs: null,
    verdictOpenedAtMs: null,
  };
  await store.transaction(async (tables) => {
    await tables.trials.insert(row);
    const here = { where: { trialId: from.id, binnedAtMs: IsNull() } };
    const newIds = new Map<string, string>();
    const copied = <Row extends { id: string; trialId: string }>(rows: Row[]) =>
      rows.map((each) => {
        const id = newId();
        newIds.set(each.id, id);
        return { ...each, id, trialId: row.id };
      });
    await tables.criteria.insert(copied(await tables.criteria.find(here)));
    await tables.chains.insert(copied(await tables.chains.find(here)));
    await tables.stations.insert(copied(await tables.stations.find(here)));
    await tables.scripts.insert(copied(await tables.scripts.find(here)));
    const plan = await tables.plans.findOneBy({ trialId: from.id });
    if (plan) {
      const renamed = (id: string) => newIds.get(id) ?? id;
      await tables.plans.insert({
        ...plan,
        trialId: row.id,
        committedAtMs: null,
        factors: plan.factors.map((factor) => ({ ...factor, levels: factor.levels.map((level) => ({ ...level, id: renamed(level.id) })) })),
        leftOut: plan.leftOut.map((key) => key.split('|').map(renamed).join('|')),
      });
    }
  });
  return row;
}
