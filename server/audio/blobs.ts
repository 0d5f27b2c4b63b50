import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, existsSync } from 'node:fs';
import { link, mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { type Arriving, openArriving } from './arriving.ts';

/** Bytes that came in: how many, and their SHA-256. */
export interface StoredBlob {
  sha256: string;
  sizeBytes: number;
}

/** Bytes that are on the disk but have no name yet, so that they can be looked at and refused. */
export interface StagedBlob extends StoredBlob {
  path: string;
  /** Gives the bytes their name for good. Called inside the write of the record that refers to them. */
  keep(): Promise<StoredBlob>;
  /** Removes them; nothing is left behind. */
  discard(): Promise<void>;
}

/** Bytes on disk under their SHA-256. A blob is never changed once it has its name. */
export interface BlobStore {
  /** Writes a stream to a temporary file, hashes and flushes it. Stopped, it leaves nothing behind. */
  stage(chunks: AsyncIterable<Uint8Array>): Promise<StagedBlob>;
  /** Hashes a file that lies in the data folder already. Kept, it has a second name; whoever wrote it removes the first. */
  stageFile(path: string): Promise<StagedBlob>;
  pathOf(sha256: string): string;
  /** A path for something that is on its way, on the same disk; what is left there is cleared at the next start. */
  pathOnTheWay(): string;
  has(sha256: string): boolean;
  /** Every blob with its size. */
  list(): Promise<StoredBlob[]>;
  remove(sha256: string): Promise<void>;
  /** What comes in piece by piece. */
  arriving: Arriving;
}

/** Opens the blob store of a data folder and clears what an interrupted upload left. */
export async function openBlobs(dataFolder: string): Promise<BlobStore> {
  const incoming = join(dataFolder, 'incoming');
  const blobs = join(dataFolder, 'blobs');
  await rm(incoming, { recursive: true, force: true });
  await mkdir(incoming, { recursive: true });
  await mkdir(blobs, { recursive: true });
  const arriving = await openArriving(join(dataFolder, 'arriving'));
  const pathOf = (sha256: string) => join(blobs, sha256.slice(0, 2), sha256);

  return {
    pathOf,
    pathOnTheWay: () => join(incoming, randomUUID()),
    has: (sha256) => existsSync(pathOf(sha256)),
    async stage(chunks) {
      const path = join(incoming, randomUUID());
      const file = await open(path, 'wx');
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
        await rm(path, { force: true });
        throw error;
      }
      await file.close();
      const sha256 = hash.digest('hex');
      const discard = () => rm(path, { force: true });
      return {
        path,
        sha256,
        sizeBytes,
        discard,
        async keep() {
          const folder = join(blobs, sha256.slice(0, 2));
          await mkdir(folder, { recursive: true });
          await rename(path, pathOf(sha256));
          await syncFolder(folder);
          return { sha256, sizeBytes };
        },
      };
    },
    async stageFile(path) {
      const hash = createHash('sha256');
      let sizeBytes = 0;
      for await (const chunk of createReadStream(path) as AsyncIterable<Uint8Array>) {
        hash.update(chunk);
        sizeBytes += chunk.byteLength;
      }
      const sha256 = hash.digest('hex');
      return {
        path,
        sha256,
        sizeBytes,
        discard: async () => undefined,
        async keep() {
          const folder = join(blobs, sha256.slice(0, 2));
          await mkdir(folder, { recursive: true });
          await link(path, pathOf(sha256)).catch((error: NodeJS.ErrnoException) => {
            // The same bytes are there already.
            if (error.code !== 'EEXIST') throw error;
          });
          await syncFolder(folder);
          return { sha256, sizeBytes };
        },
      };
    },
    async list() {
      const found: StoredBlob[] = [];
      for (const folder of await readdir(blobs)) {
        for (const sha256 of await readdir(join(blobs, folder))) found.push({ sha256, sizeBytes: (await stat(pathOf(sha256))).size });
      }
      return found;
    },
    remove: (sha256) => rm(pathOf(sha256), { force: true }),
    arriving,
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
