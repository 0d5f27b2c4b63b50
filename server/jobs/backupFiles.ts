import type { LowerTrack } from '@marvet/core/measure/pair/backupFile';
import type { AudioEvent } from '@marvet/core/measure/report.types';
import { savedClips } from '@marvet/core/measure/savedClips';
import type { BlobStore } from '../audio/blobs.ts';
import type { AudioFileRow, RecordingRow } from '../store/records.ts';
import type { ReadTables, Store, Tables } from '../store/store.ts';
import type { EventBus } from './events.ts';
import type { WorkerPool } from './pool.ts';
import type { JobHandler, JobRunner } from './runner.ts';

/** Finds files that are the backup of another one: a recorder that writes its lower track into a file of its own. */
export interface Backups {
  /** Looks at a measured file and at those that are as long. */
  look(fileId: string): Promise<void>;
}

/** A recorder closes its two files together. */
const AS_LONG_S = 0.05;

/** A main track that clips is told a little quieter than it was, so that it lies less above its backup. */
const [LEAST_APART_LU, MOST_APART_LU] = [3, 21];
/** Where more than these are as long, length says nothing. */
const MOST_COMPARED = 16;

interface Compared extends Pick<AudioFileRow, 'id' | 'name' | 'sha256' | 'trialId'> {
  channels: number;
  /** Of its first channel. */
  lufs: number | null;
  takeId: string | null;
}

export function openBackups(store: Store, runner: JobRunner): Backups {
  return {
    async look(fileId) {
      const [file, ...others] = await asLong(store, fileId);
      if (!file || others.length === 0) return;
      await runner.add([{ kind: 'backup', trialId: file.trialId, subjectId: fileId, key: [file, ...others].map(({ sha256 }) => sha256).join(' ') }]);
    },
  };
}

export function backupHandler(store: Store, blobs: BlobStore, pool: WorkerPool, events: EventBus): JobHandler {
  return {
    resumes: true,
    async run({ subjectId: fileId }, signal) {
      const [file, ...others] = await asLong(store, fileId);
      if (!file) return;
      for (const other of others) {
        const found = await pool.run({ kind: 'backup' as const, path: blobs.pathOf(file.sha256), otherPath: blobs.pathOf(other.sha256), channels: file.channels }, signal);
        const changed = await store.write(async (tables) => {
          const kept: boolean[] = [];
          for (const [channel, lower] of found.entries()) if (lower) kept.push(await keep(tables, channel, lower, file, other));
          return kept.includes(true);
        });
        if (!changed) continue;
        for (const { id } of [file, other]) events.tell(file.trialId, { type: 'file', fileId: id });
        events.tell(file.trialId, { type: 'records', tags: ['Files', 'Recordings', 'Verdict'], page: null });
      }
    },
  };
}

/** A measured file, and after it those of its trial that may be its backup, or of which it may be one; nothing where it is not there. */
async function asLong(from: Pick<ReadTables, 'query'>, fileId: string): Promise<Compared[]> {
  const of = (name: string) => `json_extract(f."format", '$.${name}')`;
  const same = (name: string) => `${of(name)} = json_extract(own."format", '$.${name}')`;
  const first = (what: string) => `(SELECT ${what} FROM "recording" r WHERE r."fileId" = f."id" AND r."channels" = '[0]' ORDER BY r."startS" LIMIT 1)`;
  const [own, ...others] = await from.query<Compared>(
    `SELECT f."id", f."name", f."sha256", f."trialId", ${of('channels')} AS "channels", ${first(`json_extract(r."figures", '$."loudness.integratedLufs"')`)} AS "lufs",
        ${first('r."takeId"')} AS "takeId"
      FROM "audio_file" f JOIN "audio_file" own ON own."id" = ? AND own."trialId" = f."trialId"
      WHERE f."binnedAtMs" IS NULL AND f."state" = 'done' AND own."state" = 'done' AND own."binnedAtMs" IS NULL AND ${same('channels')} AND ${same('sampleRateHz')}
        AND abs(${of('durationS')} - json_extract(own."format", '$.durationS')) <= ?
      ORDER BY f."id" <> own."id", f."id"`,
    [fileId, AS_LONG_S],
  );
  if (!own) return [];
  const meant = others.filter(({ takeId, lufs }) => (takeId === own.takeId || takeId === null || own.takeId === null) && mayBeLower(lufs, own.lufs));
  return [own, ...(meant.length > MOST_COMPARED ? meant.filter(({ takeId }) => takeId !== null && takeId === own.takeId) : meant)];
}

function mayBeLower(a: number | null, b: number | null): boolean {
  if (a === null || b === null) return false;
  const apartLu = Math.abs(a - b);
  return apartLu >= LEAST_APART_LU && apartLu <= MOST_APART_LU;
}

/** Writes down that a channel of one file is the backup of the same channel of another. @returns whether anything is new */
async function keep(tables: Tables, channel: number, { lower, lowerByDb }: LowerTrack, file: Compared, other: Compared): Promise<boolean> {
  const [backupFile, mainFile] = lower === 'own' ? [file, other] : [other, file];
  const [backups, mains] = [await singles(tables, backupFile.id, channel), await singles(tables, mainFile.id, channel)];
  const onFile = ({ startS, report }: RecordingRow) =>
    (report?.events ?? []).map((event): AudioEvent => ({ ...event, startS: event.startS + (startS ?? 0), endS: event.endS + (startS ?? 0) }));
  const clips = mains.flatMap(onFile);
  let changed = false;
  for (const recording of backups) {
    const { backup } = recording;
    // What its own file says of it stands; of several louder ones it is the backup of the loudest.
    if (backup && (!backup.ofFile || backup.lowerByDb > lowerByDb)) continue;
    const within = clips.filter(({ startS, endS }) => endS > (recording.startS ?? 0) && startS < (recording.endS ?? Number.POSITIVE_INFINITY));
    const now = { ofChannel: channel, ofFile: { id: mainFile.id, name: mainFile.name }, lowerByDb, ...savedClips(within, onFile(recording)) };
    if (JSON.stringify(now) === JSON.stringify(backup)) continue;
    changed = true;
    await tables.recordings.update(recording.id, { backup: now });
    // Once it is known to be a backup it is no candidate; who chose it after that wanted it.
    if (!backup) await giveUp(tables, recording, mains);
  }
  return changed;
}

const singles = async (tables: Tables, fileId: string, channel: number) =>
  (await tables.recordings.findBy({ fileId })).filter(({ channels }) => channels.length === 1 && channels[0] === channel);

/** A backup leaves its candidate to its main track where that has none, and lies in the take of its main track where it lay in none. */
async function giveUp(tables: Tables, { id, takeId, setupId, startS }: RecordingRow, mains: readonly RecordingRow[]): Promise<void> {
  const main = mains.find((each) => (takeId === null ? each.takeId !== null && each.startS === null && startS === null : each.takeId === takeId));
  if (main && !main.setupId && setupId) await tables.recordings.update(main.id, { setupId });
  await tables.recordings.update(id, { setupId: null, ...(main && takeId === null ? { takeId: main.takeId, matchedBy: 'sound' as const } : {}) });
}
