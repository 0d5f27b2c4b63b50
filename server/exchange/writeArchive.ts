import { createHash } from 'node:crypto';
import { statSync } from 'node:fs';
import type { BlobStore } from '../audio/blobs.ts';
import { MIGRATIONS } from '../store/migrations/migrations.ts';
import type { ReadTables } from '../store/store.ts';
import { ARCHIVED, archivedRows, hashesOf } from './archiveTables.ts';
import { type ZipPart, zipped } from './soundsZip.ts';
import type { Manifest } from './trialArchive.ts';

/** How records are laid out in an archive; it grows when what is there already is understood otherwise. */
export const ARCHIVE_VERSION = 1;
/** What the records of an archive are the records of: the schema of this program. */
export const SCHEMA = MIGRATIONS.length;

/**
 * A trial with all that belongs to it as one ZIP, as docs/formats.md has it; its bytes are read as they are taken.
 * @param figures every figure as CSV, for whoever has no program that reads the rest
 */
export async function writeArchive(tables: ReadTables, blobs: BlobStore, trialId: string, figures: string): Promise<{ body: ReadableStream; sizeBytes: number }> {
  const rows = await archivedRows(tables, trialId);
  const nowMs = Date.now();
  const texts = ARCHIVED.map((name) => ({ name, text: JSON.stringify(rows[name], null, 1) }));
  const hashes = hashesOf(rows);
  const there = hashes.filter((sha256) => blobs.has(sha256));
  const [trial] = rows.trials;
  const manifest: Manifest = {
    format: 'marvet trial',
    version: ARCHIVE_VERSION,
    schema: SCHEMA,
    madeAtMs: nowMs,
    trial: { id: trialId, name: trial?.name ?? '' },
    records: Object.fromEntries(texts.map(({ name, text }) => [name, { rows: rows[name].length, sha256: createHash('sha256').update(text).digest('hex') }])),
    blobs: there.map((sha256) => ({ sha256, sizeBytes: statSync(blobs.pathOf(sha256)).size })),
    missing: hashes.filter((sha256) => !there.includes(sha256)),
  };
  const parts: ZipPart[] = [
    { name: 'trial.json', text: JSON.stringify(manifest, null, 1), mtimeMs: nowMs },
    ...texts.map(({ name, text }): ZipPart => ({ name: `records/${name}.json`, text, mtimeMs: nowMs })),
    { name: 'figures.csv', text: figures, mtimeMs: nowMs },
    ...there.map((sha256): ZipPart => ({ name: `blobs/${sha256}`, path: blobs.pathOf(sha256), mtimeMs: nowMs })),
  ];
  return zipped(parts);
}
