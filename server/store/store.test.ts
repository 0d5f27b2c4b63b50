import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NO_SETTINGS } from '@marvet/core/domain/chain';
import { newId } from '@marvet/core/domain/identity';
import { emptyPlan } from '@marvet/core/plan/followRecords';
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
  verdictOpenedAtMs: null,
  roles: [],
  budget: null,
  comparisons: [],
});

/** What the schemas before the fourth held: one trial with its sealed expectation, a chain and a plan. */
async function oldTrial({ dataSource }: Store): Promise<void> {
  await dataSource.query(
    `INSERT INTO "trial" ("id", "name", "question", "use", "place", "sample", "createdAtMs", "expectedCandidateId", "expectedReason", "expectedSealedAtMs") VALUES ('old', 'x', '', '', '', 0, 1, 'c', 'dear', 5)`,
  );
  const settings = { gainDb: 12, padDb: null, lowCutHz: null, limiter: null, note: '' };
  await dataSource.query(
    `INSERT INTO "chain" ("id", "trialId", "name", "links", "rig", "candidate", "tape", "remark", "position") VALUES ('c', 'old', 'Quoinholt', ?, '{}', 1, '{}', '', 0)`,
    [JSON.stringify([{ itemId: 'i', settings }])],
  );
  await dataSource.query(`INSERT INTO "plan" ("trialId", "factors", "leftOut", "together", "controls", "changeTimesS", "overheadS") VALUES ('old', '[]', '[]', 1, '[]', ?, 25)`, [
    JSON.stringify({ station: 900, candidate: 300, windscreen: 90, distance: 60, script: 15 }),
  ]);
}

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
      store.stations.insert({
        id: newId(),
        trialId: newId(),
        name: 's',
        surfaces: '',
        noise: '',
        indoors: false,
        latitudeDeg: null,
        longitudeDeg: null,
        needsDaylight: false,
        hazards: [],
        remark: '',
        position: 0,
        binnedAtMs: null,
      }),
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
    await oldTrial(store);
    await store.close();
    store = await openStore(folder);
    expect(await store.expectations.find()).toEqual([{ trialId: 'old', person: 'Mixer', candidateId: 'c', reason: 'dear', sealedAtMs: 5 }]);
    const [chain] = await store.chains.find();
    expect(chain?.links[0]?.settings).toEqual({ ...NO_SETTINGS, gainDb: 12 });
    expect(await store.plans.findOneByOrFail({ trialId: 'old' })).toMatchObject({ ...emptyPlan(), factors: [] });
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
