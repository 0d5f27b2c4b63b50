import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newId } from '@marvet/core/domain/identity';
import { stationDraftSchema } from '@marvet/core/domain/station';
import type { Role } from '@marvet/core/domain/trial';
import { trialDraftSchema } from '@marvet/core/domain/trial';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type OldDatabase, openOldDatabase } from '../testing/oldDatabase.ts';
import { checkData } from './check.ts';
import { MIGRATIONS } from './migrations/migrations.ts';
import { RECORDS } from './records.ts';
import { type OpenedStore, openStore } from './store.ts';

let folder: string;
let store: OpenedStore;
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'marvet-store-'));
  store = await openStore(folder);
});
afterEach(async () => {
  await store.close();
  await rm(folder, { recursive: true, force: true });
});

const trial = () => ({ ...trialDraftSchema.parse({ name: 'x' }), id: newId(), version: 1, sample: false, createdAtMs: 1, binnedAtMs: null, verdictOpenedAtMs: null });

describe('the database', () => {
  it('has by its migrations exactly the columns that the records speak of', async () => {
    for (const entity of store.writer.entityMetadatas) {
      const columns = (await store.writer.query(`PRAGMA table_info("${entity.tableName}")`)) as { name: string; notnull: number; pk: number }[];
      const found = columns.map((column) => [column.name, column.notnull === 0 && column.pk === 0, column.pk > 0]).sort();
      const wanted = entity.columns.map((column) => [column.databaseName, column.isNullable, column.isPrimary]).sort();
      expect(found, entity.tableName).toEqual(wanted);
    }
  });

  it('keeps a write-ahead log, foreign keys, and flushes every commit', async () => {
    const pragma = async (name: string) => Object.values(((await store.writer.query(`PRAGMA ${name}`)) as object[])[0] ?? {})[0];
    expect([await pragma('journal_mode'), await pragma('foreign_keys'), await pragma('synchronous')]).toEqual(['wal', 1, 2]);
    const station = { ...stationDraftSchema.parse({ name: 's' }), id: newId(), trialId: newId(), version: 1, binnedAtMs: null };
    await expect(store.write((tables) => tables.stations.insert(station))).rejects.toThrow(/FOREIGN KEY/);
  });

  it('opens again with what was written, and makes no copy when there is nothing to change', async () => {
    await store.write((tables) => tables.trials.insert(trial()));
    await store.close();
    store = await openStore(folder);
    expect(await store.trials.count()).toBe(1);
    expect(store.copiedTo).toBeNull();
  });
});

describe('a database of before', () => {
  /** Every schema that has landed, with rows in every table of it, as they were written then. */
  const FIXTURES = [
    'schema-0001.sql',
    'schema-0002.sql',
    'schema-0003.sql',
    'schema-0004.sql',
    'schema-0005.sql',
    'schema-0006.sql',
    'schema-0007.sql',
    'schema-0009.sql',
    'schema-0010.sql',
    'schema-0011.sql',
    'schema-0013.sql',
    'schema-0014.sql',
    'schema-0015.sql',
  ];
  const at = (number: string) => `00000000-0000-4000-8000-0000000000${number}`;

  const countOf = (database: OldDatabase, table: string) => (database.prepare(`SELECT COUNT(*) AS n FROM "${table}"`).get() as { n: number }).n;

  async function openOld(fixture: string): Promise<Map<string, number>> {
    await store.close();
    await rm(folder, { recursive: true });
    folder = await mkdtemp(join(tmpdir(), 'marvet-store-'));
    const old = openOldDatabase(join(folder, 'marvet.sqlite'));
    old.exec(await readFile(new URL(`./fixtures/${fixture}`, import.meta.url), 'utf8'));
    const tables = old.prepare(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name <> 'migrations'`).all() as { name: string }[];
    const counts = new Map(tables.map(({ name }) => [name, countOf(old, name)]));
    old.close();
    store = await openStore(folder);
    return counts;
  }

  it.each(FIXTURES)('%s opens with every row it had, and a copy of it as it was', async (fixture) => {
    const counts = await openOld(fixture);
    expect([...counts.values()].every((count) => count > 0)).toBe(true);
    const now = async (table: string) => ((await store.writer.query(`SELECT COUNT(*) AS n FROM "${table}"`)) as { n: number }[])[0]?.n;
    const renamed: Record<string, string> = { session: 'round' };
    for (const [table, count] of counts) expect(await now(renamed[table] ?? table), table).toBe(count);
    expect(await checkData(store, () => true)).toEqual([]);
    const copies = await readdir(join(folder, 'backups'));
    expect(copies).toHaveLength(1);
    const copy = openOldDatabase(join(folder, 'backups', copies[0]!));
    for (const [table, count] of counts) expect(countOf(copy, table)).toBe(count);
    copy.close();
  });

  it.each(FIXTURES)('%s is read by the records of today: takes with setups, files tied to them, rounds with their listeners', async (fixture) => {
    await openOld(fixture);
    // Every table is read once, so that no row of it is refused by its record.
    for (const name of Object.keys(RECORDS) as (keyof typeof RECORDS)[]) await store[name].find();
    const done = await store.takes.findOneByOrFail({ id: at('61') });
    expect(done).toMatchObject({ slate: 1, status: 'done' });
    expect(done.setups.map((setup) => setup.candidateId)).toEqual([at('21'), at('22')]);
    const recordings = await store.recordings.findBy({ fileId: at('81') });
    expect(recordings.every((recording) => recording.takeId === at('61'))).toBe(true);
    for (const recording of recordings.filter((each) => each.setupId !== null)) expect(done.setups.map((setup) => setup.id)).toContain(recording.setupId);
    expect(recordings.some((recording) => recording.setupId !== null)).toBe(true);
    expect(Object.keys(done.gains).every((id) => done.setups.some((setup) => setup.id === id))).toBe(true);
    expect((await store.expectations.find())[0]).toMatchObject({ person: 'Mixer', candidateId: at('22') });
    // A role of before gear was shared out asks nothing of it.
    const stored = (await store.writer.query('SELECT "roles" FROM "trial"')) as { roles: string }[];
    const roles = stored.flatMap((row) => JSON.parse(row.roles) as Role[]);
    for (const role of roles) expect(role).toMatchObject({ name: expect.any(String), importance: 1, spares: 0, mustLock: false, mustHide: false, least: [] });
    if (fixture >= 'schema-0004.sql') expect(roles.length).toBeGreaterThan(0);
    const ratings = await store.ratings.find();
    expect(ratings.map((rating) => rating.letter).sort()).toEqual(['A', 'B']);
  });

  it('keeps the last three copies', async () => {
    await store.close();
    await rm(folder, { recursive: true });
    folder = await mkdtemp(join(tmpdir(), 'marvet-store-'));
    const { copyBefore } = await import('./backups.ts');
    store = await openStore(folder);
    const made: string[] = [];
    for (let time = 0; time < 5; time++) made.push(await copyBefore(store.writer, folder));
    expect((await readdir(join(folder, 'backups'))).sort()).toEqual(made.slice(-3).map((path) => path.split('/').at(-1)));
  });

  it('never goes back: a copy is there for that', () => {
    expect(MIGRATIONS.length).toBeGreaterThan(FIXTURES.length);
  });
});

describe('writes', () => {
  it('a transaction that fails leaves nothing, and those that wait behind it go on', async () => {
    const failing = store.write(async (tables) => {
      await tables.trials.insert(trial());
      throw new Error('no');
    });
    const next = store.write((tables) => tables.trials.insert(trial()));
    await expect(failing).rejects.toThrow('no');
    await next;
    expect(await store.trials.count()).toBe(1);
  });

  it('one that was answered is not taken back by another that fails around it, and nobody sees what is not whole', async () => {
    let fail: () => void = () => undefined;
    const held = new Promise<void>((resolve) => {
      fail = resolve;
    });
    const slow = store.write(async (tables) => {
      await tables.trials.insert(trial());
      await held;
      throw new Error('rolled back');
    });
    const quick = store.write((tables) => tables.trials.insert({ ...trial(), name: 'answered' }));
    expect(await store.trials.count()).toBe(0);
    fail();
    await expect(slow).rejects.toThrow('rolled back');
    await quick;
    expect((await store.trials.find()).map((each) => each.name)).toEqual(['answered']);
  });
});

describe('the look over at a start', () => {
  it('names files whose bytes are gone', async () => {
    const photo = {
      id: newId(),
      ownerKind: 'item' as const,
      ownerId: newId(),
      caption: 'clip',
      type: 'image/jpeg' as const,
      sha256: 'ab'.repeat(32),
      addedAtMs: 1,
      binnedAtMs: null,
    };
    await store.write((tables) => tables.photos.insert(photo));
    expect(await checkData(store, () => true)).toEqual([]);
    expect((await checkData(store, () => false))[0]).toMatch(/^The bytes of photograph clip are missing/);
  });
});
