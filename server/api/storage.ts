import type { LooseBytes } from '@marvet/core/contract/answers';
import { Hono } from 'hono';
import type { StoredBlob } from '../audio/blobs.ts';
import type { ReadTable } from '../store/table.ts';
import type { Services } from './services.ts';

/** Bytes that neither a record nor a bin refers to: counted first, removed when somebody says so. */
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
  return new Hono()
    .get('/', async (context) => context.json(sums(await loose())))
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
    });
}
