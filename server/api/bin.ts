import { idSchema } from '@marvet/core/domain/identity';
import { slateLabel } from '@marvet/core/domain/take';
import { Hono } from 'hono';
import { IsNull, Not } from 'typeorm';
import { z } from 'zod';
import type { Store, Table } from '../store/store.ts';
import { notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

interface Binnable {
  id: string;
  trialId: string;
  binnedAtMs: number | null;
}

/** Kinds of records that a trial's bin holds, and how each is called there. */
const KINDS = {
  criterion: { table: (store: Store) => store.criteria, name: (row: { name: string }) => row.name },
  chain: { table: (store: Store) => store.chains, name: (row: { name: string }) => row.name },
  station: { table: (store: Store) => store.stations, name: (row: { name: string }) => row.name },
  script: { table: (store: Store) => store.scripts, name: (row: { name: string }) => row.name },
  take: { table: (store: Store) => store.takes, name: (row: { slate: number; pass: number }) => `Take ${slateLabel(row)}` },
  file: { table: (store: Store) => store.files, name: (row: { name: string }) => row.name },
  round: { table: (store: Store) => store.rounds, name: (row: { title: string }) => row.title },
} as const;
const kindSchema = z.enum(Object.keys(KINDS) as [keyof typeof KINDS, ...(keyof typeof KINDS)[]]);
const restoreSchema = z.object({ kind: kindSchema, id: idSchema });
const tableOf = (store: Store, kind: keyof typeof KINDS) => KINDS[kind].table(store) as unknown as Table<Binnable>;

/** What was deleted from a trial, and bringing it back. */
export function binRoutes({ store, events, measuring }: Pick<Services, 'store' | 'events' | 'measuring'>): Hono {
  return new Hono()
    .get('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const lists = await Promise.all(
        kindSchema.options.map(async (kind) => {
          const rows = await tableOf(store, kind).findBy({ trialId, binnedAtMs: Not(IsNull()) });
          return rows.map((row) => ({ kind, id: row.id, name: KINDS[kind].name(row as never), binnedAtMs: row.binnedAtMs as number }));
        }),
      );
      return context.json(lists.flat().sort((a, b) => b.binnedAtMs - a.binnedAtMs));
    })
    .post('/restore', async (context) => {
      const trialId = pathId(context, 'trial');
      const { kind, id } = await readBody(context, restoreSchema);
      const { affected } = await tableOf(store, kind).update({ id, trialId }, { binnedAtMs: null });
      if (!affected) throw notFound(kind);
      if (kind === 'file') {
        const file = await store.files.findOneByOrFail({ id });
        if (file.state === 'queued' || file.state === 'measuring') measuring.add(file);
      }
      events.tell(trialId, { type: 'takes' });
      events.tell(trialId, { type: 'file', fileId: id });
      return context.body(null, 204);
    });
}

/** Records outside trials that can be brought back: items of the library, and listeners. */
export function restoreRoutes(store: Store): Hono {
  const restored = async (table: { update: Store['items']['update'] }, id: string, noun: string) => {
    const { affected } = await table.update({ id }, { binnedAtMs: null });
    if (!affected) throw notFound(noun);
  };
  return new Hono()
    .get('/items', async (context) => context.json(await store.items.findBy({ binnedAtMs: Not(IsNull()) })))
    .post('/items/:id', async (context) => {
      await restored(store.items, pathId(context, 'id'), 'item');
      return context.body(null, 204);
    })
    .post('/listeners/:id', async (context) => {
      await restored(store.listeners as never, pathId(context, 'id'), 'listener');
      return context.body(null, 204);
    });
}
