import { newId } from '@marvet/core/domain/identity';
import { copiedTrial } from '@marvet/core/takes/copiedTrial';
import type { TrialRow } from './records.ts';
import type { Tables } from './store.ts';
import { present } from './table.ts';

/**
 * Copies what a trial sets out to do: question, criteria, chains, stations, places, rigs, scripts and plan.
 * Takes, files, listening and the expectation belong to the day and stay behind.
 */
export async function copyTrial(tables: Tables, from: TrialRow): Promise<TrialRow> {
  const here = { where: present(from.id) };
  const copy = copiedTrial(
    {
      trial: from,
      chains: await tables.chains.find(here),
      stations: await tables.stations.find(here),
      placements: await tables.placements.find(here),
      rigs: await tables.rigs.find(here),
      frames: await tables.frames.find(here),
      wearers: await tables.wearers.find(here),
      scripts: await tables.scripts.find(here),
      criteria: await tables.criteria.find(here),
      plan: await tables.plans.findOneBy({ trialId: from.id }),
    },
    newId,
    Date.now(),
  );
  await tables.trials.insert(copy.trial);
  await tables.chains.insert(copy.chains);
  await tables.stations.insert(copy.stations);
  await tables.placements.insert(copy.placements);
  await tables.rigs.insert(copy.rigs);
  await tables.frames.insert(copy.frames);
  await tables.wearers.insert(copy.wearers);
  await tables.scripts.insert(copy.scripts);
  await tables.criteria.insert(copy.criteria);
  if (copy.plan) await tables.plans.insert(copy.plan);
  return copy.trial;
}
