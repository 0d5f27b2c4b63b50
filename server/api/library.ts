import { newId } from '@marvet/core/domain/identity';
import { placementDraftSchema } from '@marvet/core/domain/placement';
import { rigRecordDraftSchema } from '@marvet/core/domain/rigRecord';
import { Hono } from 'hono';
import type { z } from 'zod';
import type { Store, Tables } from '../store/store.ts';
import { IsNull, type ReadTable, type Table } from '../store/table.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';

/** A placement or a rig that belongs to no trial. */
interface LibraryRow {
  id: string;
  name: string;
  trialId: string | null;
  version: number;
  binnedAtMs: number | null;
}

/** What the library holds beside items, and how one of them is called in a sentence. */
const KINDS = {
  placements: { noun: 'placement', schema: placementDraftSchema },
  rigs: { noun: 'rig', schema: rigRecordDraftSchema },
} as const satisfies Record<string, { noun: string; schema: z.ZodType<{ name: string }> }>;
export const LIBRARY_KINDS = Object.keys(KINDS) as (keyof typeof KINDS)[];

/**
 * Placements or rigs of the library, for all trials to start from: list, keep, remove and bring back.
 * A name is there once; a second one is refused, so that nothing kept is overwritten unseen.
 */
export function libraryRoutes(store: Store, kind: keyof typeof KINDS): Hono {
  const { noun, schema } = KINDS[kind];
  const read = (from: Pick<Store, typeof kind>) => from[kind] as unknown as ReadTable<LibraryRow>;
  const written = (tables: Tables) => tables[kind] as unknown as Table<LibraryRow>;
  const present = { trialId: IsNull(), binnedAtMs: IsNull() };

  async function refuseSecond(tables: Tables, name: string): Promise<void> {
    const there = (await read(tables).findBy(present)).some((row) => row.name.toLowerCase() === name.toLowerCase());
    if (there) throw new ApiError(409, 'already-there', `The library has a ${noun} called ${name} already. Remove that one first, or give this one another name.`);
  }

  return new Hono()
    .get('/', async (context) => context.json(await read(store).find({ where: present, order: { name: 'ASC' } })))
    .post('/', async (context) => {
      const draft = await readBody(context, schema);
      const row: LibraryRow = { ...draft, id: newId(), trialId: null, version: 1, binnedAtMs: null };
      await store.write(async (tables) => {
        await refuseSecond(tables, row.name);
        await written(tables).insert(row);
      });
      return context.json(row, 201);
    })
    .delete('/:id', async (context) => {
      const id = pathId(context, 'id');
      const { affected } = await store.write((tables) => written(tables).update({ ...present, id }, { binnedAtMs: Date.now() }));
      if (!affected) throw notFound(noun);
      return context.body(null, 204);
    })
    .post('/:id/restore', async (context) => {
      const id = pathId(context, 'id');
      await store.write(async (tables) => {
        const row = await read(tables).findOneBy({ id, trialId: IsNull() });
        if (!row) throw notFound(noun);
        if (row.binnedAtMs === null) return;
        await refuseSecond(tables, row.name);
        await written(tables).update(id, { binnedAtMs: null });
      });
      return context.body(null, 204);
    });
}
