import { createRequire } from 'node:module';
import { join } from 'node:path';
import { TABLE_FIGURES } from '../core/contract/recordings.ts';
import { newId } from '../core/domain/identity.ts';
import { MEASURE_IDS } from '../core/domain/measureId.ts';
import { MEASURES } from '../core/measure/catalogue.ts';
import { METHOD_VERSION } from '../core/measure/report.types.ts';
import { PLAIN_FORMAT } from '../core/testing/plainFormat.ts';

const Database = createRequire(join(import.meta.dirname, '../server/'))('better-sqlite3') as new (
  path: string,
) => {
  prepare(sql: string): { run(...values: unknown[]): void; get(...values: unknown[]): Record<string, unknown> };
  transaction(work: () => void): () => void;
  close(): void;
};

/** Puts takes with measured recordings straight into the database, as many as a long trial has. */
export function seedTakes(dataFolder: string, trialId: string, chainIds: readonly string[], count: number): void {
  const database = new Database(join(dataFolder, 'marvet.sqlite'));
  const model = database.prepare('SELECT * FROM "take" WHERE "trialId" = ? LIMIT 1').get(trialId);
  const insert = (table: string, row: Record<string, unknown>) => {
    const names = Object.keys(row);
    database.prepare(`INSERT INTO "${table}" (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map(() => '?').join(', ')})`).run(...Object.values(row));
  };
  database.transaction(() => {
    for (let index = 0; index < count; index++) {
      const takeId = newId();
      const fileId = newId();
      const setups = chainIds.map((candidateId) => ({ id: newId(), candidateId, levels: {} }));
      const setupId = setups[index % setups.length]!.id;
      insert('take', {
        ...model,
        id: takeId,
        setups: JSON.stringify(setups),
        slate: 1000 + index,
        position: 1000 + index,
        status: 'done',
        startedAtMs: 1e12 + index,
        stoppedAtMs: 1e12 + index + 1,
      });
      insert('audio_file', {
        id: fileId,
        trialId,
        name: `S${1000 + index}.wav`,
        sha256: fileId.padEnd(64, '0'),
        sizeBytes: 1000,
        uploadedAtMs: 1e12 + index,
        format: JSON.stringify(PLAIN_FORMAT),
        state: 'done',
        failure: null,
        methodVersion: METHOD_VERSION,
        warnings: '[]',
        programme: null,
        slateSpoken: null,
        binnedAtMs: null,
      });
      const figures = Object.fromEntries(MEASURE_IDS.map((id, place) => [id, MEASURES[id].typical.worst + ((index * 37 + place) % 100) / 10]));
      insert('recording', {
        id: newId(),
        fileId,
        trialId,
        channels: '[0]',
        startS: null,
        endS: null,
        trackName: null,
        takeId,
        setupId,
        matchedBy: 'hand',
        figures: JSON.stringify(figures),
        shown: JSON.stringify(TABLE_FIGURES.map((id) => figures[id])),
        report: null,
        series: null,
        roomTone: null,
        performance: null,
      });
    }
  })();
  database.close();
}
