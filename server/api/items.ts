import { newId } from '@marvet/core/domain/identity';
import { itemDraftSchema } from '@marvet/core/domain/item';
import { Hono } from 'hono';
import { IsNull } from 'typeorm';
import type { Store } from '../store/store.ts';
import { notFound, pathId, readBody } from './http.ts';

/** The library of items, shared by all trials. */
export function itemRoutes(store: Store): Hono {
  return new Hono()
    .get('/', async (context) => context.json(await store.items.find({ where: { binnedAtMs: IsNull() }, order: { kind: 'ASC', name: 'ASC' } })))
    .post('/', async (context) => {
      const row = { ...(await readBody(context, itemDraftSchema)), id: newId(), binnedAtMs: null };
      await store.items.insert(row);
      return context.json(row, 201);
    })
    .put('/:id', async (context) => {
      const id = pathId(context, 'id');
      const draft = await readBody(context, itemDraftSchema);
      const { affected } = await store.items.update({ id, binnedAtMs: IsNull() }, draft);
      if (!affected) throw notFound('item');
      return context.json({ ...draft, id, binnedAtMs: null });
    })
    .delete('/:id', async (context) => {
      const { affected } = await store.items.update({ id: pathId(context, 'id'), binnedAtMs: IsNull() }, { binnedAtMs: Date.now() });
      if (!affected) throw notFound('item');
      return context.body(null, 204);
    });
}
