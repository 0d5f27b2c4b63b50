import { idSchema } from '@marvet/core/domain/identity';
import { slateLabel } from '@marvet/core/domain/take';
import { Hono } from 'hono';
import { z } from 'zod';
import type { RecordName } from '../store/records.ts';
import type { ReadTables, Tables } from '../store/store.ts';
import { IsNull, Not, type ReadTable, type Table } from '../store/table.ts';
import { notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

interface Binnable {
  id: string;
  trialId: string;
  binnedAtMs: number | null;
}

/** Kinds of records that a trial's bin holds, and how each is called there. */
const KINDS = {
  criterion: { name: 'criteria', called: (row: { name: string }) => row.name },
  chain: { name: 'chains', called: (row: { name: string }) => row.name },
  station: { name: 'stations', called: (row: { name: string }) => row.name },
  placement: { name: 'placements', called: (row: { name: string }) => row.name },
  rig: { name: 'rigs', called: (row: { name: string }) => row.name },
  script: { name: 'scripts', called: (row: { name: string }) => row.name },
  take: { name: 'takes', called: (row: { slate: number; pass: number }) => `Take ${slateLabel(row)}` },
  file: { name: 'files', called: (row: { name: string }) => row.name },
  round: { name: 'rounds', called: (row: { title: string }) => row.title },
} as const satisfies Record<string, { name: RecordName; called: (row: never) => string }>;
type Kind = keyof typeof KINDS;
const kindSchema = z.enum(Object.keys(KINDS) as [Kind, ...Kind[]]);
const restoreSchema = z.object({ kind: kindSchema, id: idSchema });
const read = (tables: ReadTables, kind: Kind) => tables[KINDS[kind].name] as unknown as ReadTable<Binnable>;
const written = (tables: Tables, kind: Kind) => tables[KINDS[kind].name] as unknown as Table<Binnable>;

/** What was deleted from a trial, and bringing it back. */
export function binRoutes({ store, events, work }: Pick<Services, 'store' | 'events' | 'work'>): Hono {
  return new Hono()
    .get('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const lists = await Promise.all(
        kindSchema.options.map(async (kind) => {
          const rows = await read(store, kind).findBy({ trialId, binnedAtMs: Not(IsNull()) });
          return rows.map((row) => ({ kind, id: row.id, name: KINDS[kind].called(row as never), binnedAtMs: row.binnedAtMs as number }));
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
        events.tell(trialId, { type: 'file', fileId: id });
      }
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
