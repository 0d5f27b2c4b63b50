import { limitSamples } from '@marvet/core/decide/limits/limitSamples';
import { type Limits, limitsOf } from '@marvet/core/decide/limits/limits';
import type { VerdictInput } from '@marvet/core/decide/usableRecordings';
import { currentPlan } from '../store/planRecords.ts';
import type { ReadTables } from '../store/store.ts';
import { present } from '../store/table.ts';

/** Limits of use of every candidate of a trial. */
export async function limitsOfTrial(store: ReadTables, trialId: string, input: VerdictInput): Promise<Limits[]> {
  const here = present(trialId);
  const [chains, items, stations, plan] = await Promise.all([
    store.chains.findBy({ ...here, candidate: true }),
    store.items.find(),
    store.stations.findBy(here),
    currentPlan(store, trialId),
  ]);
  const itemById = new Map(items.map((item) => [item.id, item]));
  const distances = plan.factors.find(({ kind }) => kind === 'distance')?.levels ?? [];
  const samples = limitSamples(input, stations);
  return input.candidates.map(({ id }) => {
    const links = chains.find((chain) => chain.id === id)?.links.flatMap(({ itemId }) => itemById.get(itemId) ?? []) ?? [];
    return limitsOf(id, samples.get(id) ?? [], links, (levelId) => distances.find((level) => level.id === levelId)?.value ?? null);
  });
}
