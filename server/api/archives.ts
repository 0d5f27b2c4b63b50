import { Readable } from 'node:stream';
import type { BroughtIn } from '@marvet/core/contract/answers';
import { figuresCsv } from '@marvet/core/takes/figuresOut';
import { Hono } from 'hono';
import type { BlobStore } from '../audio/blobs.ts';
import { ARCHIVED, type Archived, archivedRows, hashesOf } from '../exchange/archiveTables.ts';
import { ArchiveError, type ReadArchive, readArchive } from '../exchange/readArchive.ts';
import { writeArchive } from '../exchange/writeArchive.ts';
import type { Tables } from '../store/store.ts';
import { inParts, type Table } from '../store/table.ts';
import { measuredOf } from './figuresOut.ts';
import { ApiError, pathId, savedAs } from './http.ts';
import type { Services } from './services.ts';

/** Rows that go into the database in one statement. */
const AT_ONCE = 50;

/** A whole trial out as one file, and in again, here or on another computer. */
export function archiveRoutes({ store, blobs, work, events }: Services): Hono {
  return (
    new Hono()
      .get('/:trial/archive.zip', async (context) => {
        const trialId = pathId(context, 'trial');
        const { name, rows } = await measuredOf(store, trialId);
        // Between two writes, so that all of its records are of one moment.
        const records = await store.write((tables) => archivedRows(tables, trialId));
        const { body, sizeBytes } = await writeArchive(records, blobs, figuresCsv(rows));
        return new Response(body, { headers: { 'Content-Type': 'application/zip', ...savedAs(`${name} whole trial.zip`), 'Content-Length': String(sizeBytes) } });
      })
      /** The body is the archive. All of it comes in, or nothing does. */
      .post('/archive', async (context) => {
        const stream = context.req.raw.body;
        if (!stream) throw new ApiError(422, 'empty', 'The file is empty: 0 bytes');
        const upload = await blobs.stage(Readable.fromWeb(stream as never));
        let archive: ReadArchive;
        try {
          archive = await readArchive(upload.path, blobs);
        } catch (error) {
          if (error instanceof ArchiveError) throw new ApiError(422, 'no-archive', `This archive was not brought in. ${error.message}`);
          throw error;
        } finally {
          await upload.discard();
        }
        try {
          const known = await store.write(async (tables) => bringIn(tables, blobs, archive));
          const { id: trialId, name } = archive.manifest.trial;
          const open = archive.rows.files.filter(({ state, binnedAtMs }) => binnedAtMs === null && (state === 'queued' || state === 'measuring')).map(({ id }) => id);
          await work.measuring.request(open);
          events.tellAll({ type: 'records', tags: ['Trials', 'Items', 'Storage'], page: null });
          return context.json({ trialId, name, files: archive.rows.files.length, missing: archive.manifest.missing.length, itemsKept: known } satisfies BroughtIn, 201);
        } catch (error) {
          for (const blob of archive.staged) await blob.discard();
          throw error;
        }
      })
  );
}

/**
 * Puts the records of an archive in, with their bytes.
 * @returns how many items were here already, and stayed as they are
 * @throws ApiError 409 where the trial is here already, 422 where other records of its are
 */
async function bringIn(tables: Tables, blobs: BlobStore, { manifest, rows, staged }: ReadArchive): Promise<number> {
  const here = await tables.trials.findOneBy({ id: manifest.trial.id });
  if (here) {
    const where = here.binnedAtMs === null ? `It is called ${here.name}.` : 'It lies in the bin: bring it back from there.';
    throw new ApiError(409, 'here', `This trial is here already, and nothing was brought in. ${where}`);
  }
  // Records come as they refer to each other; whether all of them do is looked at in the end.
  await tables.query('PRAGMA defer_foreign_keys = ON');
  // What was on its way to be measured there is not here.
  const files = rows.files.map((file) => (file.state === 'measuring' ? { ...file, state: 'queued' as const } : file));
  const shared = { items: await newOnes(tables.items, rows.items), photos: await newOnes(tables.photos, rows.photos) };
  for (const name of ARCHIVED) {
    const own = { ...rows, ...shared, files }[name];
    const table = tables[name as Archived] as unknown as Table<object>;
    try {
      for (let start = 0; start < own.length; start += AT_ONCE) await table.insert(own.slice(start, start + AT_ONCE));
    } catch (error) {
      if (/constraint/i.test((error as Error).message)) {
        throw new ApiError(422, 'no-archive', `This archive was not brought in. Its ${name} are here already under another trial, or stand twice in it.`);
      }
      throw error;
    }
  }
  const [loose] = await tables.query<{ table: string }>('PRAGMA foreign_key_check');
  if (loose) throw new ApiError(422, 'no-archive', `This archive was not brought in. It speaks of records that it does not hold (${loose.table}).`);
  for (const blob of staged) await blob.keep();
  // Bytes that were here while it was read, and that nothing referred to, may have been cleared away since.
  if (hashesOf(rows).some((sha256) => !blobs.has(sha256) && !manifest.missing.includes(sha256))) {
    throw new ApiError(409, 'changing', 'Bytes of it were cleared away while it came in, and nothing was brought in. Bring it in again.');
  }
  return rows.items.length - shared.items.length;
}

/** Those whose identity is not here: items and their pictures are shared by trials, and stay as they are here. */
async function newOnes<Owned extends { id: string }>(table: { findBy(where: never): Promise<Owned[]> }, rows: readonly Owned[]): Promise<Owned[]> {
  const known = await inParts(
    rows.map(({ id }) => id),
    (part) => table.findBy({ id: part } as never),
  );
  const ids = new Set(known.map(({ id }) => id));
  return rows.filter(({ id }) => !ids.has(id));
}
