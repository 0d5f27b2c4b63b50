import { newId } from '@marvet/core/domain/identity';
import { Hono } from 'hono';
import { type FindOptionsWhere, IsNull } from 'typeorm';
import type { z } from 'zod';
import type { Store, Table } from '../store/store.ts';
import { notFound, pathId, readBody } from './http.ts';

interface TrialRecord {
  id: string;
  trialId: string;
  binnedAtMs: number | null;
}

/** What a kind of record of a trial needs to be listed, made, changed and binned. */
export interface RecordKind<Row extends TrialRecord> {
  /** As it is called in a sentence. */
  noun: string;
  table: (store: Store) => Table<Row>;
  schema: z.ZodType<Omit<Row, 'id' | 'trialId' | 'binnedAtMs'>>;
  order?: Partial<Record<keyof Row, 'ASC' | 'DESC'>>;
}

/** Routes of one kind of record: list, make, change, and put into the bin. A change is checked as a whole record. */
export function trialRecordRoutes<Row extends TrialRecord>(store: Store, kind: RecordKind<Row>): Hono {
  const table = kind.table(store);
  const where = (conditions: object) => conditions as FindOptionsWhere<Row>;

  async function present(trialId: string, id: string): Promise<Row> {
    const row = await table.findOne({ where: where({ id, trialId, binnedAtMs: IsNull() }) });
    if (!row) throw notFound(kind.noun);
    return row;
  }

  return new Hono()
    .get('/', async (context) => {
      const rows = await table.find({ where: where({ trialId: pathId(context, 'trial'), binnedAtMs: IsNull() }), order: { position: 'ASC', ...kind.order } as never });
      return context.json(rows);
    })
    .post('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const draft = await readBody(context, kind.schema);
      if (!(await store.trials.existsBy({ id: trialId }))) throw notFound('trial');
      const row = { ...draft, id: newId(), trialId, binnedAtMs: null } as Row;
      await table.insert(row as never);
      return context.json(row, 201);
    })
    .put('/:id', async (context) => {
      const row = await present(pathId(context, 'trial'), pathId(context, 'id'));
      const draft = await readBody(context, kind.schema);
      await table.update(row.id, draft as never);
      return context.json({ ...row, ...draft });
    })
    .delete('/:id', async (context) => {
      const row = await present(pathId(context, 'trial'), pathId(context, 'id'));
      await table.update(row.id, { binnedAtMs: Date.now() } as never);
      return context.body(null, 204);
    });
}
