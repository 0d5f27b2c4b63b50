import { createHash } from 'node:crypto';
import { statSync } from 'node:fs';
import type { BlobStore } from '../audio/blobs.ts';
import { ARCHIVED, type ArchivedRows, hashesOf } from './archiveTables.ts';
import { ARCHIVE_VERSION, type Manifest, SCHEMA } from './trialArchive.ts';
import { type ZipPart, zipped } from './zipped.ts';

/**
 * A trial with all that belongs to it as one ZIP, as docs/formats.md has it; its bytes are read as they are taken.
 * @param figures every figure as CSV, for whoever has no program that reads the rest
 */
export async function writeArchive(rows: ArchivedRows, blobs: BlobStore, figures: string): Promise<{ body: ReadableStream; sizeBytes: number }> {
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
    trial: { id: trial?.id ?? '', name: trial?.name ?? '' },
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
