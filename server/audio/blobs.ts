import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';

/** Bytes that came in: where they are, how many, and their SHA-256. */
export interface StoredBlob {
  sha256: string;
  sizeBytes: number;
}

/** Audio bytes on disk under their SHA-256. A blob is never changed once it has its name. */
export interface BlobStore {
  /** Writes a stream to a temporary file, hashes it, flushes it, and gives it its name. Stopped, it leaves nothing behind. */
  write(chunks: AsyncIterable<Uint8Array>): Promise<StoredBlob>;
  pathOf(sha256: string): string;
}

/** Opens the blob store of a data folder and clears what an interrupted upload left. */
export async function openBlobs(dataFolder: string): Promise<BlobStore> {
  const incoming = join(dataFolder, 'incoming');
  const blobs = join(dataFolder, 'blobs');
  await rm(incoming, { recursive: true, force: true });
  await mkdir(incoming, { recursive: true });
  await mkdir(blobs, { recursive: true });
  const pathOf = (sha256: string) => join(blobs, sha256.slice(0, 2), sha256);
  return {
    pathOf,
    async write(chunks) {
      const temporary = join(incoming, randomUUID());
      const file = await open(temporary, 'wx');
      const hash = createHash('sha256');
      let sizeBytes = 0;
      try {
        for await (const chunk of chunks) {
          hash.update(chunk);
          sizeBytes += chunk.byteLength;
          await file.writeFile(chunk);
        }
        await file.sync();
      } catch (error) {
        await file.close();
        await rm(temporary, { force: true });
        throw error;
      }
      await file.close();
      const sha256 = hash.digest('hex');
      const path = pathOf(sha256);
      const folder = join(blobs, sha256.slice(0, 2));
      await mkdir(folder, { recursive: true });
      await rename(temporary, path);
      await syncFolder(folder);
      return { sha256, sizeBytes };
    },
  };
}

/** A rename is on the disk only once its folder is. */
async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
