import type { ImportedItems } from '@marvet/core/contract/answers';
import { idSchema, newId } from '@marvet/core/domain/identity';
import { itemDraftSchema } from '@marvet/core/domain/item';
import { itemsToCsv, itemsToJson } from '@marvet/core/formats/itemList';
import { Hono } from 'hono';
import { z } from 'zod';
import type { Row } from '../store/records.ts';
import type { Store } from '../store/store.ts';
import { In, IsNull } from '../store/table.ts';
import { download, notFound, pathId, readBody, readChange } from './http.ts';
import { changeOwned } from './trialRecords.ts';

const importSchema = z.object({ items: z.array(itemDraftSchema).min(1, 'There is nothing to bring in').max(2000, 'At most 2,000 items at once') });
/** What an import did, so that it can be undone: items that it made, and those that it replaced as they were. */
const undoSchema = z.object({
  addedIds: z.array(idSchema).max(2000),
  replaced: z.array(z.object({ id: idSchema, draft: itemDraftSchema })).max(2000),
});

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
        const result = await store.write(async (tables) => {
          const addedIds: string[] = [];
          const replaced: Row<'items'>[] = [];
          const known = new Map((await tables.items.findBy({ binnedAtMs: IsNull() })).map((item) => [`${item.kind} ${item.name}`, item]));
          for (const draft of items) {
            const before = known.get(`${draft.kind} ${draft.name}`);
            if (before) {
              replaced.push(before);
              await tables.items.update(before.id, { ...draft, version: before.version + 1 });
            } else {
              const row = { ...draft, id: newId(), version: 1, binnedAtMs: null };
              await tables.items.insert(row);
              addedIds.push(row.id);
            }
          }
          return { addedIds, replaced: replaced.map(({ id, version: _version, binnedAtMs: _binned, ...draft }) => ({ id, draft })) };
        });
        return context.json({ added: result.addedIds.length, ...result } satisfies ImportedItems);
      })
      /** Takes an import back: what it made goes to the bin, what it replaced is as it was. */
      .post('/import/undo', async (context) => {
        const { addedIds, replaced } = await readBody(context, undoSchema);
        await store.write(async (tables) => {
          await tables.items.update({ id: In(addedIds) }, { binnedAtMs: Date.now() });
          for (const { id, draft } of replaced) {
            const row = await tables.items.findOneBy({ id });
            if (row) await tables.items.update(id, { ...draft, version: row.version + 1 });
          }
        });
        return context.body(null, 204);
      })
      .post('/', async (context) => {
        const row = { ...(await readBody(context, itemDraftSchema)), id: newId(), version: 1, binnedAtMs: null };
        await store.write((tables) => tables.items.insert(row));
        return context.json(row, 201);
      })
      .put('/:id', async (context) => {
        const id = pathId(context, 'id');
        const { draft, version } = await readChange(context, itemDraftSchema);
        const row = await store.write(async (tables) => {
          const item = await tables.items.findOneBy({ id, binnedAtMs: IsNull() });
          if (!item) throw notFound('item');
          return changeOwned(tables, 'items', 'item', item, version, draft);
        });
        return context.json(row);
      })
      .delete('/:id', async (context) => {
        const { affected } = await store.write((tables) => tables.items.update({ id: pathId(context, 'id'), binnedAtMs: IsNull() }, { binnedAtMs: Date.now() }));
        if (!affected) throw notFound('item');
        return context.body(null, 204);
      })
  );
}
