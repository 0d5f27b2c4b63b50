import { rm } from 'node:fs/promises';
import type { LooseBytes } from '@marvet/core/contract/answers';
import { Hono } from 'hono';
import type { StoredBlob } from '../audio/blobs.ts';
import { type ZipPart, zipped } from '../exchange/zipped.ts';
import type { ReadTable } from '../store/table.ts';
import { savedAs } from './http.ts';
import type { Services } from './services.ts';

/** The data folder: a copy of all of it, and bytes that neither a record nor a bin refers to, counted first, removed when somebody says so. */
export function storageRoutes({ store, blobs }: Pick<Services, 'store' | 'blobs'>): Hono {
  async function loose(): Promise<StoredBlob[]> {
    const all = await blobs.list();
    const rows = await store.query<{ sha256: string }>(
      'SELECT "sha256" FROM "audio_file" UNION SELECT "originalSha256" FROM "audio_file" WHERE "originalSha256" IS NOT NULL UNION SELECT "sha256" FROM "photo" UNION SELECT "sha256" FROM "voice_note"',
    );
    const used = new Set(rows.map(({ sha256 }) => sha256));
    return all.filter(({ sha256 }) => !used.has(sha256));
  }
  const sums = (found: readonly StoredBlob[]): LooseBytes => ({ count: found.length, bytes: found.reduce((sum, { sizeBytes }) => sum + sizeBytes, 0) });
  return (
    new Hono()
      .get('/', async (context) => context.json(sums(await loose())))
      /** Everything in one file: unpacked, it is a data folder. The database is copied between two writes, the bytes as they lie. */
      .get('/copy.zip', async () => {
        const copy = blobs.pathOnTheWay();
        await store.copyTo(copy);
        const nowMs = Date.now();
        const sounds = (await blobs.list()).map(({ sha256 }): ZipPart => ({ name: `blobs/${sha256.slice(0, 2)}/${sha256}`, path: blobs.pathOf(sha256), mtimeMs: nowMs }));
        const tidy = () => void rm(copy, { force: true }).catch((error: unknown) => console.error('A copy of the database could not be removed:', error));
        const { body, sizeBytes } = await zipped([{ name: 'marvet.sqlite', path: copy, mtimeMs: nowMs }, ...sounds], tidy);
        const day = new Date(nowMs).toISOString().slice(0, 10);
        return new Response(body, { headers: { 'Content-Type': 'application/zip', ...savedAs(`Marvet ${day}.zip`), 'Content-Length': String(sizeBytes) } });
      })
      .post('/collect', async (context) => {
        const found = await loose();
        // Inside a write nothing new can come to refer to them.
        const removed = await store.write(async (tables) => {
          const still: StoredBlob[] = [];
          for (const blob of found) {
            const { sha256 } = blob;
            const owners = [tables.files, tables.photos, tables.voiceNotes] as unknown as ReadTable<{ sha256: string }>[];
            const held = await Promise.all(owners.map((owner) => owner.existsBy({ sha256 })));
            if (held.includes(true) || (await tables.files.existsBy({ originalSha256: sha256 }))) continue;
            await blobs.remove(sha256);
            still.push(blob);
          }
          return still;
        });
        return context.json(sums(removed));
      })
  );
}
