import { newId } from '@marvet/core/domain/identity';
import { momentChangeSchema, momentDraftSchema } from '@marvet/core/domain/moment';
import { Hono } from 'hono';
import type { Store } from '../store/store.ts';
import { IsNull, present } from '../store/table.ts';
import { notFound, pathId, readBody } from './http.ts';

/** Moments of recordings that somebody marked while listening, with what is heard there. */
export function momentRoutes(store: Store): Hono {
  return new Hono()
    .get('/', async (context) => context.json(await store.moments.find({ where: present(pathId(context, 'trial')), order: { atS: 'ASC' } })))
    .post('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const draft = await readBody(context, momentDraftSchema);
      const row = { ...draft, id: newId(), trialId, createdAtMs: Date.now(), binnedAtMs: null };
      await store.write(async (tables) => {
        if (!(await tables.recordings.existsBy({ id: draft.recordingId, trialId }))) throw notFound('recording');
        await tables.moments.insert(row);
      });
      return context.json(row, 201);
    })
    .put('/:id', async (context) => {
      const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
      const { note } = await readBody(context, momentChangeSchema);
      const { affected } = await store.write((tables) => tables.moments.update({ id, ...present(trialId) }, { note }));
      if (!affected) throw notFound('moment');
      return context.body(null, 204);
    })
    .delete('/:id', async (context) => {
      const where = { id: pathId(context, 'id'), trialId: pathId(context, 'trial'), binnedAtMs: IsNull() };
      const { affected } = await store.write((tables) => tables.moments.update(where, { binnedAtMs: Date.now() }));
      if (!affected) throw notFound('moment');
      return context.body(null, 204);
    });
}
