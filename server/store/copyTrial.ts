import { newId } from '@marvet/core/domain/identity';
import { IsNull } from 'typeorm';
import type { CriterionRow, TrialRow } from './rows.ts';
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
    comparisons: [],
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
    const chains = copied(await tables.chains.find(here));
    await tables.chains.insert(chains.map((chain) => ({ ...chain, split: chain.split && { ...chain.split, chainId: newIds.get(chain.split.chainId) ?? chain.split.chainId } })));
    await tables.stations.insert(copied(await tables.stations.find(here)));
    await tables.scripts.insert(copied(await tables.scripts.find(here)));
    const renamedWhere = (where: CriterionRow['where']) => Object.fromEntries(Object.entries(where).map(([kind, ids]) => [kind, ids.map((id) => newIds.get(id) ?? id)]));
    const criteria = copied(await tables.criteria.find(here));
    await tables.criteria.insert(criteria.map((criterion) => ({ ...criterion, where: renamedWhere(criterion.where) })));
    const plan = await tables.plans.findOneBy({ trialId: from.id });
    if (plan) {
      const renamed = (id: string) => newIds.get(id) ?? id;
      await tables.plans.insert({
        ...plan,
        trialId: row.id,
        committedAtMs: null,
        factors: plan.factors.map((factor) => ({ ...factor, levels: factor.levels.map((level) => ({ ...level, id: renamed(level.id) })) })),
        leftOut: plan.leftOut.map((key) => key.split('|').map(renamed).join('|')),
        rules: plan.rules.map((rule) => ({ ...rule, levelIds: rule.levelIds.map(renamed), withLevelIds: rule.withLevelIds.map(renamed) })),
        design: {
          ...plan.design,
          base: Object.fromEntries(Object.entries(plan.design.base).map(([kind, id]) => [kind, renamed(id)])),
          ladder: { ...plan.design.ladder, speechId: renamed(plan.design.ladder.speechId), silenceId: renamed(plan.design.ladder.silenceId) },
        },
        togetherLimits: { ...plan.togetherLimits, apart: plan.togetherLimits.apart.map(([a, b]): [string, string] => [renamed(a), renamed(b)]) },
        changeExceptions: plan.changeExceptions.map((each) => ({ ...each, fromId: renamed(each.fromId), toId: renamed(each.toId) })),
        order: { ...plan.order, pinned: [] },
        day: { ...plan.day, startsAtMs: null, endsAtMs: null, breaks: [] },
        faultSearch: null,
      });
    }
  });
  return row;
}
