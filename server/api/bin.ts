import { BIN_KINDS, type BinKind, type Binned } from '@marvet/core/contract/answers';
import { idSchema } from '@marvet/core/domain/identity';
import { momentName } from '@marvet/core/domain/moment';
import { slateLabel } from '@marvet/core/domain/take';
import { Hono } from 'hono';
import { z } from 'zod';
import { takesOf } from '../jobs/measuring.ts';
import type { ReadTables, Tables } from '../store/store.ts';
import { IsNull, Not, type ReadTable, type Table } from '../store/table.ts';
import { notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

interface Binnable {
  id: string;
  trialId: string;
  binnedAtMs: number | null;
}

/** How a deleted thing is called. */
const CALLED: Partial<Record<BinKind, (row: never) => string>> = {
  take: (row: { slate: number; pass: number }) => `Take ${slateLabel(row)}`,
  round: (row: { title: string }) => row.title,
  moment: momentName,
  sight: (row: { answeredBy: string; seen: string }) => `${row.answeredBy}: ${row.seen}`,
};
const called = (kind: BinKind, row: Binnable): string => CALLED[kind]?.(row as never) ?? (row as unknown as { name: string }).name;
const kindSchema = z.enum(Object.keys(BIN_KINDS) as [BinKind, ...BinKind[]]);
const restoreSchema = z.object({ kind: kindSchema, id: idSchema });
const read = (tables: ReadTables, kind: BinKind) => tables[BIN_KINDS[kind]] as unknown as ReadTable<Binnable>;
const written = (tables: Tables, kind: BinKind) => tables[BIN_KINDS[kind]] as unknown as Table<Binnable>;

/** What was deleted from a trial, and bringing it back. */
export function binRoutes({ store, events, work }: Pick<Services, 'store' | 'events' | 'work'>): Hono {
  return new Hono()
    .get('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const lists = await Promise.all(
        kindSchema.options.map(async (kind) => {
          const rows = await read(store, kind).findBy({ trialId, binnedAtMs: Not(IsNull()) });
          return rows.map((row): Binned => ({ kind, id: row.id, name: called(kind, row), binnedAtMs: row.binnedAtMs as number }));
        }),
      );
      return context.json(lists.flat().sort((a, b) => b.binnedAtMs - a.binnedAtMs));
    })
    .post('/restore', async (context) => {
      const trialId = pathId(context, 'trial');
      const { kind, id } = await readBody(context, restoreSchema);
      const { affected } = await store.write((tables) => written(tables, kind).update({ id, trialId }, { binnedAtMs: null }));
      if (!affected) throw notFound(kind);
      if (kind === 'file') {
        const file = await store.files.findOneByOrFail({ id });
        if (file.state === 'queued' || file.state === 'measuring') await work.measuring.request([id]);
        await work.against.look(trialId, await takesOf(store, id));
        events.tell(trialId, { type: 'file', fileId: id });
      }
      if (kind === 'take') await work.against.look(trialId, [id]);
      return context.body(null, 204);
    });
}

/** Records outside trials that can be brought back: items of the library, and listeners. */
export function restoreRoutes({ store }: Pick<Services, 'store'>): Hono {
  return new Hono()
    .get('/items', async (context) => context.json(await store.items.findBy({ binnedAtMs: Not(IsNull()) })))
    .post('/items/:id', async (context) => {
      const { affected } = await store.write((tables) => tables.items.update({ id: pathId(context, 'id') }, { binnedAtMs: null }));
      if (!affected) throw notFound('item');
      return context.body(null, 204);
    })
    .post('/listeners/:id', async (context) => {
      const { affected } = await store.write((tables) => tables.listeners.update({ id: pathId(context, 'id') }, { binnedAtMs: null }));
      if (!affected) throw notFound('listener');
      return context.body(null, 204);
    });
}
