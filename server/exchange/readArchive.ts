import { createHash } from 'node:crypto';
import { type Entry, open as openZip, type ZipFile } from 'yauzl';
import type { z } from 'zod';
import type { BlobStore, StagedBlob } from '../audio/blobs.ts';
import { RECORDS } from '../store/records.ts';
import { ARCHIVED, type Archived, type ArchivedRows, hashesOf } from './archiveTables.ts';
import { ARCHIVE_VERSION, type Manifest, manifestSchema, SCHEMA } from './trialArchive.ts';

/** An archive that is not read, and why, in a sentence. */
export class ArchiveError extends Error {}

/** No text that this program can write is larger; what says so wants to fill the memory. */
const MOST_TEXT_BYTES = 480 << 20;
const MOST_ENTRIES = 200_100;
const NAMED = /^(?:trial\.json|figures\.csv|records\/[A-Za-z]{1,30}\.json|blobs\/[0-9a-f]{64})$/;

/** What an archive holds, checked: records that are sound, and bytes that are what their names say. */
export interface ReadArchive {
  manifest: Manifest;
  rows: ArchivedRows;
  /** Bytes that are not here yet, on the disk but without a name. */
  staged: StagedBlob[];
}

/**
 * Reads an archive of a trial, and believes nothing of it: names, sizes, hashes, every record by its schema.
 * @returns what is to be kept; whoever asks keeps or discards the staged bytes
 * @throws ArchiveError then nothing is left behind
 */
export async function readArchive(path: string, blobs: BlobStore): Promise<ReadArchive> {
  const zip = await opened(path);
  const staged: StagedBlob[] = [];
  try {
    const entries = await entriesOf(zip);
    const manifest = manifestOf(await textOf(zip, entries, 'trial.json'));
    const rows = await rowsOf(zip, entries, manifest);
    refuseStrangers(rows, manifest.trial.id);
    for (const sha256 of hashesOf(rows)) {
      if (blobs.has(sha256)) continue;
      const entry = entries.get(`blobs/${sha256}`);
      if (!entry && manifest.missing.includes(sha256)) continue;
      if (!entry) throw new ArchiveError(`The bytes ${sha256.slice(0, 12)}… are missing from it. It is not whole: take it out again.`);
      // Sound is stored as it is; packed bytes may be a thousand times what they seem.
      if (entry.compressionMethod !== 0) throw new ArchiveError('It holds packed sound, as no archive of a trial does.');
      const blob = await blobs.stage(await streamOf(zip, entry));
      staged.push(blob);
      if (blob.sha256 !== sha256) throw new ArchiveError(`The bytes ${sha256.slice(0, 12)}… are damaged. Copy the archive again, or take it out again.`);
    }
    return { manifest, rows, staged };
  } catch (error) {
    for (const blob of staged) await blob.discard();
    // What the ZIP reader says of a broken ZIP is told as what it is.
    if (error instanceof ArchiveError || !(error instanceof Error) || 'syscall' in error) throw error;
    throw new ArchiveError(`It is damaged (${error.message}). Copy it again, or take it out again.`);
  } finally {
    zip.close();
  }
}

function opened(path: string): Promise<ZipFile> {
  return new Promise((resolve, reject) => {
    openZip(path, { lazyEntries: true, autoClose: false, strictFileNames: true, validateEntrySizes: true }, (error, zip) => {
      if (error) reject(new ArchiveError(`It cannot be read as a ZIP (${error.message}). It may not have been copied whole.`));
      else resolve(zip);
    });
  });
}

/** All files of it by name. @throws ArchiveError where one has a name that none should have, or stands twice */
function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  if (zip.entryCount > MOST_ENTRIES) throw new ArchiveError(`It holds ${zip.entryCount} files, more than any trial has.`);
  return new Promise((resolve, reject) => {
    const entries = new Map<string, Entry>();
    zip.on('error', reject);
    zip.on('end', () => resolve(entries));
    zip.on('entry', (entry: Entry) => {
      if (!NAMED.test(entry.fileName)) return reject(new ArchiveError(`It holds a file that no archive of a trial has: ${entry.fileName.slice(0, 80)}`));
      if (entries.has(entry.fileName)) return reject(new ArchiveError(`It holds ${entry.fileName} twice.`));
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.readEntry();
  });
}

function streamOf(zip: ZipFile, entry: Entry): Promise<AsyncIterable<Uint8Array>> {
  return new Promise((resolve, reject) => zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))));
}

async function textOf(zip: ZipFile, entries: ReadonlyMap<string, Entry>, name: string): Promise<string> {
  const entry = entries.get(name);
  if (!entry) throw new ArchiveError(`${name} is missing from it: it is no archive of a trial, or not whole.`);
  if (entry.uncompressedSize > MOST_TEXT_BYTES) throw new ArchiveError(`${name} is larger than any trial's.`);
  const chunks: Uint8Array[] = [];
  for await (const chunk of await streamOf(zip, entry)) chunks.push(chunk);
  return Buffer.concat(chunks).toString('utf8');
}

function manifestOf(text: string): Manifest {
  const value = jsonOf(text, 'trial.json');
  const version = Number((value as { version?: unknown } | null)?.version);
  const schema = Number((value as { schema?: unknown } | null)?.schema);
  if (version > ARCHIVE_VERSION || schema > SCHEMA) throw new ArchiveError('It was made by a newer Marvet than this one. Bring this one up to date first.');
  const result = manifestSchema.safeParse(value);
  if (!result.success) throw new ArchiveError(`trial.json does not say what an archive says: ${result.error.issues[0]?.path.join('.')}, ${result.error.issues[0]?.message}`);
  return result.data;
}

function jsonOf(text: string, name: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new ArchiveError(`${name} is damaged: ${(error as Error).message}`);
  }
}

/** Every kind of records, by its schema; a kind that an older archive does not know is empty. */
async function rowsOf(zip: ZipFile, entries: ReadonlyMap<string, Entry>, { records }: Manifest): Promise<ArchivedRows> {
  const rows: Partial<Record<Archived, unknown[]>> = {};
  for (const name of ARCHIVED) {
    const said = records[name];
    if (!said) {
      rows[name] = [];
      continue;
    }
    const file = `records/${name}.json`;
    const text = await textOf(zip, entries, file);
    if (createHash('sha256').update(text).digest('hex') !== said.sha256) throw new ArchiveError(`${file} is not as it was written. Copy the archive again, or take it out again.`);
    const value = jsonOf(text, file);
    if (!Array.isArray(value) || value.length !== said.rows) throw new ArchiveError(`${file} does not hold the ${said.rows} records that it should.`);
    const schema: z.ZodType = RECORDS[name].schema;
    rows[name] = value.map((each: unknown, index) => {
      const result = schema.safeParse(each);
      if (!result.success) throw new ArchiveError(`Record ${index + 1} of ${file}: ${result.error.issues[0]?.path.join('.')}, ${result.error.issues[0]?.message}`);
      return result.data;
    });
  }
  return rows as ArchivedRows;
}

/** @throws ArchiveError where it holds records of another trial, or of none */
function refuseStrangers(rows: ArchivedRows, trialId: string): void {
  if (rows.trials.length !== 1 || rows.trials[0]?.id !== trialId) throw new ArchiveError('It does not hold the one trial that it says.');
  const rounds = new Set(rows.rounds.map(({ id }) => id));
  const listeners = new Set(rows.listeners.map(({ id }) => id));
  const strange =
    ARCHIVED.some((name) => (rows[name] as object[]).some((row) => 'trialId' in row && row.trialId !== trialId)) ||
    rows.listeners.some(({ roundId }) => !rounds.has(roundId)) ||
    [...rows.ratings, ...rows.choices].some(({ listenerId }) => !listeners.has(listenerId));
  if (strange) throw new ArchiveError('It holds records of another trial.');
}
