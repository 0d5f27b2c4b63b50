import { newId } from '@marvet/core/domain/identity';
import { Hono } from 'hono';
import type { z } from 'zod';
import type { RecordName, Row } from '../store/records.ts';
import type { Store, Tables } from '../store/store.ts';
import { present, type ReadTable, type Table } from '../store/table.ts';
import { changedMeanwhile, notFound, pathId, readBody, readChange } from './http.ts';

/** Records of a trial that are listed, made, changed as a whole and binned. */
export type TrialRecordName = Extract<RecordName, 'criteria' | 'chains' | 'stations' | 'scripts' | 'placements' | 'rigs' | 'frames' | 'wearers' | 'sights' | 'devices'>;

/** By what those are listed that have no place of their own among others. */
const ORDERED_BY: Partial<Record<TrialRecordName, string>> = { placements: 'name', rigs: 'name', sights: 'atMs' };

/** A row of any of them. */
interface Owned {
  id: string;
  trialId: string;
  version: number;
  binnedAtMs: number | null;
}

/** What a kind of record of a trial needs to be listed, made, changed and binned. */
export interface RecordKind {
  /** As it is called in a sentence. */
  noun: string;
  name: TrialRecordName;
  schema: z.ZodType;
}

/**
 * Changes a record as a whole, if it still is what the change started from.
 * @throws ApiError 409 with the record as it is, when it is not
 */
export async function changeOwned<Name extends TrialRecordName | 'items'>(
  tables: Tables,
  name: Name,
  noun: string,
  row: Row<Name>,
  version: number,
  draft: object,
): Promise<Row<Name>> {
  const { id, version: current } = row as { id: string; version: number };
  if (current !== version) throw changedMeanwhile(noun, row);
  const next = { ...draft, version: current + 1 };
  await (tables[name] as Table<Row<Name>>).update(id, next as never);
  return { ...row, ...next };
}

/** Routes of one kind of record: list, make, change, and put into the bin. A change is checked as a whole record. */
export function trialRecordRoutes(store: Store, { noun, name, schema }: RecordKind): Hono {
  const here = (from: Pick<Store, TrialRecordName>) => from[name] as unknown as ReadTable<Owned>;
  const written = (tables: Tables) => tables[name] as unknown as Table<Owned>;

  async function presentRow(from: Pick<Store, TrialRecordName>, trialId: string, id: string): Promise<Owned> {
    const row = await here(from).findOneBy({ id, ...present(trialId) });
    if (!row) throw notFound(noun);
    return row;
  }

  return new Hono()
    .get('/', async (context) => {
      const order = { [ORDERED_BY[name] ?? 'position']: 'ASC' } as never;
      return context.json(await here(store).find({ where: present(pathId(context, 'trial')), order }));
    })
    .post('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const draft = (await readBody(context, schema)) as object;
      const row: Owned = { ...draft, id: newId(), trialId, version: 1, binnedAtMs: null };
      await store.write(async (tables) => {
        if (!(await tables.trials.existsBy({ id: trialId }))) throw notFound('trial');
        await written(tables).insert(row);
      });
      return context.json(row, 201);
    })
    .put('/:id', async (context) => {
      const { draft, version } = await readChange(context, schema);
      const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
      const row = await store.write(async (tables) => changeOwned(tables, name, noun, (await presentRow(tables, trialId, id)) as never, version, draft as object));
      return context.json(row);
    })
    .delete('/:id', async (context) => {
      const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
      await store.write(async (tables) => {
        await presentRow(tables, trialId, id);
        await written(tables).update(id, { binnedAtMs: Date.now() });
      });
      return context.body(null, 204);
    });
}
