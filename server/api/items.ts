import { newId } from '@marvet/core/domain/identity';
import { itemDraftSchema } from '@marvet/core/domain/item';
import { itemsToCsv, itemsToJson } from '@marvet/core/formats/itemList';
import { Hono } from 'hono';
import { IsNull } from 'typeorm';
import { z } from 'zod';
import type { Store } from '../store/store.ts';
import { download, notFound, pathId, readBody } from './http.ts';

const importSchema = z.object({ items: z.array(itemDraftSchema).min(1, 'There is nothing to bring in').max(2000, 'At most 2,000 items at once') });

/** The library of items, shared by all trials: list, make, change, bin, take away and bring in. */
export function itemRoutes(store: Store): Hono {
  const present = () => store.items.find({ where: { binnedAtMs: IsNull() }, order: { kind: 'ASC', name: 'ASC' } });
  return (
    new Hono()
      .get('/', async (context) => context.json(await present()))
      .get('/library.csv', async (context) => download(context, 'marvet library.csv', 'text/csv', itemsToCsv(await present())))
      .get('/library.json', async (context) => download(context, 'marvet library.json', 'application/json', itemsToJson(await present())))
      /** All or nothing: an item of the same kind and name is replaced by the one that comes in. */
      .post('/import', async (context) => {
        const { items } = await readBody(context, importSchema);
        const result = await store.transaction(async (tables) => {
          let added = 0;
          for (const draft of items) {
            const known = await tables.items.findOneBy({ kind: draft.kind, name: draft.name, binnedAtMs: IsNull() });
            if (known) await tables.items.update(known.id, draft);
            else {
              await tables.items.insert({ ...draft, id: newId(), binnedAtMs: null });
              added++;
            }
          }
          return { added, replaced: items.length - added };
        });
        return context.json(result);
      })
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
      })
  );
}
