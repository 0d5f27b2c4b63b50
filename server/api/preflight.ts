import { preflightChangeSchema } from '@marvet/core/domain/preflight';
import { Hono } from 'hono';
import type { Store } from '../store/store.ts';
import { In } from '../store/table.ts';
import { notFound, pathId, readBody } from './http.ts';

/** What was checked before going out, by whom and when. */
export function preflightRoutes(store: Store): Hono {
  const ticks = async (trialId: string) => (await store.preflight.find({ where: { trialId }, order: { atMs: 'ASC' } })).map(({ trialId: _trial, ...tick }) => tick);
  return new Hono()
    .get('/', async (context) => context.json(await ticks(pathId(context, 'trial'))))
    .put('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const { keys, ticked, person } = await readBody(context, preflightChangeSchema);
      await store.write(async (tables) => {
        if (!(await tables.trials.existsBy({ id: trialId }))) throw notFound('trial');
        const rows = keys.map((key) => ({ trialId, key, person, atMs: Date.now() }));
        if (ticked) await tables.preflight.upsert(rows, ['trialId', 'key']);
        else await tables.preflight.delete({ trialId, key: In(keys) });
      });
      return context.json(await ticks(trialId));
    });
}
