import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newId } from '@marvet/core/domain/identity';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { MIGRATIONS, openStore, type Store } from './store.ts';

let folder: string;
let store: Store;
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'marvet-store-'));
  store = await openStore(folder);
});
afterEach(async () => {
  await store.close();
  await rm(folder, { recursive: true, force: true });
});

const trial = () => ({
  id: newId(),
  name: 'x',
  question: '',
  use: '',
  place: '',
  sample: false,
  createdAtMs: 1,
  binnedAtMs: null,
  expectedCandidateId: null,
  expectedReason: '',
  expectedSealedAtMs: null,
  verdictOpenedAtMs: null,
});

describe('the database', () => {
  it('has by its migrations exactly the columns that the entities speak of', async () => {
    for (const entity of store.dataSource.entityMetadatas) {
      const columns = (await store.dataSource.query(`PRAGMA table_info("${entity.tableName}")`)) as { name: string; notnull: number; pk: number }[];
      const found = columns.map((column) => [column.name, column.notnull === 0 && column.pk === 0, column.pk > 0]).sort();
      const wanted = entity.columns.map((column) => [column.databaseName, column.isNullable, column.isPrimary]).sort();
      expect(found, entity.tableName).toEqual(wanted);
    }
  });

  it('keeps a write-ahead log, foreign keys, and flushes every commit', async () => {
    const pragma = async (name: string) => Object.values(((await store.dataSource.query(`PRAGMA ${name}`)) as object[])[0] ?? {})[0];
    expect([await pragma('journal_mode'), await pragma('foreign_keys'), await pragma('synchronous')]).toEqual(['wal', 1, 2]);
    await expect(
      store.stations.insert({ id: newId(), trialId: newId(), name: 's', surfaces: '', noise: '', indoors: false, hazards: [], remark: '', position: 0, binnedAtMs: null }),
    ).rejects.toThrow(/FOREIGN KEY/);
  });

  it('is taken down and put up again by its migrations', async () => {
    for (const _ of MIGRATIONS) await store.dataSource.undoLastMigration();
    expect(await store.dataSource.query(`SELECT name FROM sqlite_master WHERE name = 'trial'`)).toEqual([]);
    await store.dataSource.runMigrations();
    await store.trials.insert(trial());
    expect(await store.trials.count()).toBe(1);
  });

  it.each(MIGRATIONS.slice(1).map((_, index) => index + 1))('comes up from the schema of %i migrations ago with everything that was in it', async (ago) => {
    for (let undone = 0; undone < ago; undone++) await store.dataSource.undoLastMigration();
    await store.trials.insert(trial());
    await store.close();
    store = await openStore(folder);
    expect(await store.trials.count()).toBe(1);
    expect(await store.recordings.count()).toBe(0);
    expect(await store.items.count()).toBe(0);
  });

  it('opens again with what was written', async () => {
    await store.trials.insert(trial());
    await store.close();
    store = await openStore(folder);
    expect(await store.trials.count()).toBe(1);
  });

  it('a transaction that fails leaves nothing, and those that wait behind it go on', async () => {
    const failing = store.transaction(async (tables) => {
      await tables.trials.insert(trial());
      throw new Error('no');
    });
    const next = store.transaction((tables) => tables.trials.insert(trial()));
    await expect(failing).rejects.toThrow('no');
    await next;
    expect(await store.trials.count()).toBe(1);
  });
});
