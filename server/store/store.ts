import 'reflect-metadata';
import { join } from 'node:path';
import { DataSource, type EntityManager, type Repository } from 'typeorm';
import * as entities from './entities.ts';
import { First1764000000000 } from './migrations/0001-first.ts';
import { RoomTone1764100000000 } from './migrations/0002-room-tone.ts';
import { ItemLevels1764200000000 } from './migrations/0003-item-levels.ts';
import { FairBefore1764300000000 } from './migrations/0004-fair-before.ts';

/** Migrations in the order in which they are run. */
export const MIGRATIONS = [First1764000000000, RoomTone1764100000000, ItemLevels1764200000000, FairBefore1764300000000];

const repositories = (from: EntityManager) => ({
  trials: from.getRepository(entities.TrialEntity),
  expectations: from.getRepository(entities.ExpectationEntity),
  preflight: from.getRepository(entities.PreflightEntity),
  photos: from.getRepository(entities.PhotoEntity),
  criteria: from.getRepository(entities.CriterionEntity),
  marks: from.getRepository(entities.MarkEntity),
  items: from.getRepository(entities.ItemEntity),
  chains: from.getRepository(entities.ChainEntity),
  stations: from.getRepository(entities.StationEntity),
  scripts: from.getRepository(entities.ScriptEntity),
  plans: from.getRepository(entities.PlanEntity),
  takes: from.getRepository(entities.TakeEntity),
  logLines: from.getRepository(entities.LogLineEntity),
  files: from.getRepository(entities.AudioFileEntity),
  recordings: from.getRepository(entities.RecordingEntity),
  rounds: from.getRepository(entities.RoundEntity),
  listeners: from.getRepository(entities.ListenerEntity),
  ratings: from.getRepository(entities.RatingEntity),
});

/** All tables of one database, or of one transaction on it. */
export type Tables = ReturnType<typeof repositories>;
export type Table<Row extends object> = Repository<Row>;

/** The database: its tables, and transactions on all of them. */
export interface Store extends Tables {
  dataSource: DataSource;
  /** Runs `work` in one transaction; transactions queue up, so that two never share a connection's state. */
  transaction<Result>(work: (tables: Tables) => Promise<Result>): Promise<Result>;
  close(): Promise<void>;
}

/**
 * Opens the database in a data folder and brings its schema up to date. Write-ahead log, foreign keys,
 * and every commit flushed to the disk before it is acknowledged.
 */
export async function openStore(dataFolder: string): Promise<Store> {
  const dataSource = new DataSource({
    type: 'better-sqlite3',
    database: join(dataFolder, 'marvet.sqlite'),
    entities: entities.ENTITIES,
    migrations: MIGRATIONS,
    migrationsRun: true,
    enableWAL: true,
    prepareDatabase: (database: { pragma(text: string): void }) => {
      database.pragma('foreign_keys = ON');
      database.pragma('synchronous = FULL');
      database.pragma('busy_timeout = 5000');
    },
  });
  await dataSource.initialize();
  let last: Promise<unknown> = Promise.resolve();
  return {
    ...repositories(dataSource.manager),
    dataSource,
    transaction(work) {
      const next = last.then(() => dataSource.transaction((manager) => work(repositories(manager))));
      // The queue goes on after a failure; whoever asked for the work sees it.
      last = next.catch(() => undefined);
      return next;
    },
    close: () => dataSource.destroy(),
  };
}
