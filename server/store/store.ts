import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { DataSource, type EntityManager } from 'typeorm';
import { copyBefore } from './backups.ts';
import { MIGRATIONS } from './migrations/migrations.ts';
import { ENTITIES, type RecordName, type Row } from './records.ts';
import type { ReadTable, Table } from './table.ts';

/** All tables inside a write. */
export type Tables = { [Name in RecordName]: Table<Row<Name>> } & {
  /** A statement of its own, for what the mapper does slowly. */
  query<Result>(sql: string, values?: unknown[]): Promise<Result[]>;
};

/** All tables to read from. */
export type ReadTables = { [Name in RecordName]: ReadTable<Row<Name>> } & Pick<Tables, 'query'>;

/**
 * The database. Reading and writing have a connection each: what is written in a transaction is seen by
 * nobody else before it is whole, and a reader never waits for a writer.
 */
export interface Store extends ReadTables {
  /**
   * Runs `work` in one transaction on the one writing connection. Writes queue up: none ever runs inside
   * another, and one that fails takes nothing with it but itself.
   */
  write<Result>(work: (tables: Tables) => Promise<Result>): Promise<Result>;
  close(): Promise<void>;
}

/** A store with its connections, for checks at the start and in tests. */
export interface OpenedStore extends Store {
  writer: DataSource;
  /** The copy that was made before the schema was brought up to date; null when there was nothing to do. */
  copiedTo: string | null;
  /** Copies the database as it is between two writes. */
  copyTo(path: string): Promise<void>;
}

const tablesOf = (from: EntityManager): Tables => ({
  ...(Object.fromEntries(Object.entries(ENTITIES).map(([name, entity]) => [name, from.getRepository(entity as never)])) as unknown as Tables),
  query: (sql, values) => from.query(sql, values),
});

const PRAGMAS = ['journal_mode = WAL', 'synchronous = FULL', 'busy_timeout = 5000'];

function connection(database: string, pragmas: readonly string[]): DataSource {
  return new DataSource({
    type: 'better-sqlite3',
    database,
    entities: Object.values(ENTITIES),
    migrations: MIGRATIONS,
    prepareDatabase: (opened: { pragma(text: string): void }) => {
      for (const pragma of [...PRAGMAS, ...pragmas]) opened.pragma(pragma);
    },
  });
}

/**
 * Opens the database in a data folder and brings its schema up to date; before that it is copied.
 * Write-ahead log, foreign keys, and every commit flushed to the disk before it is acknowledged.
 */
export async function openStore(dataFolder: string): Promise<OpenedStore> {
  const database = join(dataFolder, 'marvet.sqlite');
  const isNew = !existsSync(database);
  // While the schema changes, tables are rebuilt under their names; the references are checked after it.
  const writer = await connection(database, []).initialize();
  // The driver turns references on whenever it connects.
  await writer.query('PRAGMA foreign_keys = OFF');
  const pending = await writer.showMigrations();
  const copiedTo = pending && !isNew ? await copyBefore(writer, dataFolder) : null;
  if (pending) {
    await writer.runMigrations({ transaction: 'each' });
    const broken: unknown[] = await writer.query('PRAGMA foreign_key_check');
    if (broken.length > 0) throw new Error(`${broken.length} rows refer to what is not there after the change of schema${copiedTo ? `; the copy before it is ${copiedTo}` : ''}`);
  }
  await writer.query('PRAGMA foreign_keys = ON');
  const reader = await connection(database, ['query_only = ON']).initialize();
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = <Result>(work: () => Promise<Result>): Promise<Result> => {
    const next = last.then(work);
    // The queue goes on after a failure; whoever asked for the work sees it.
    last = next.catch(() => undefined);
    return next;
  };
  return {
    ...tablesOf(reader.manager),
    writer,
    copiedTo,
    write: (work) => inTurn(() => writer.transaction((manager) => work(tablesOf(manager)))),
    copyTo: (path) =>
      inTurn(async () => {
        await writer.query('VACUUM INTO ?', [path]);
      }),
    async close() {
      await last;
      await reader.destroy();
      await writer.destroy();
    },
  };
}
