import { type FoundBefore, foundBefore } from '@marvet/core/decide/foundBefore';
import { Hono } from 'hono';
import { IsNull, present } from '../store/table.ts';
import type { Services } from './services.ts';

/** What all trials whose verdict was opened found of their candidates; nothing of a sealed one, and nothing of one in the bin. */
export function foundRoutes({ store, verdicts }: Pick<Services, 'store' | 'verdicts'>): Hono {
  return new Hono().get('/', async (context) => {
    const found: FoundBefore[] = [];
    for (const trial of await store.trials.findBy({ binnedAtMs: IsNull() })) {
      if (trial.verdictOpenedAtMs === null) continue;
      const here = present(trial.id);
      const [{ criteria, rows }, chains, stations, takes, recorded] = await Promise.all([
        verdicts.of(trial),
        store.chains.findBy({ ...here, candidate: true }),
        store.stations.findBy(here),
        store.takes.findBy(here),
        store.query<{ setupId: string }>('SELECT "setupId" FROM "recording" WHERE "trialId" = ? AND "setupId" IS NOT NULL', [trial.id]),
      ]);
      const stationName = (id: string) => stations.find((station) => station.id === id)?.name ?? null;
      found.push(...foundBefore({ trial, criteria, rows, chains, takes, recorded: new Set(recorded.map(({ setupId }) => setupId)), stationName }));
    }
    return context.json(found);
  });
}
