import type { GearFrom } from '@marvet/core/decide/allocate/gearProblem';
import type { VerdictRow } from '@marvet/core/decide/verdict';
import type { Criterion } from '@marvet/core/domain/criterion';
import type { TrialRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { present } from '../store/table.ts';

/** What a share-out is worked out from: what was judged, and the chains with their parts and places. */
export async function gearFrom(store: ReadTables, trial: TrialRow, criteria: readonly Criterion[], rows: readonly VerdictRow[]): Promise<GearFrom> {
  const here = present(trial.id);
  const [chains, items, placements, takes] = await Promise.all([
    store.chains.findBy({ ...here, candidate: true }),
    store.items.find(),
    store.placements.findBy(here),
    store.takes.findBy(here),
  ]);
  return { trial, criteria, rows, chains, items, placements, takes };
}
