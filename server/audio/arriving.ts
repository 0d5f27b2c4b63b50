import { createHash } from 'node:crypto';
import { mkdir, open, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';

/** What makes two attempts the same file: where it goes, and what the browser tells of it. */
export interface ArrivingFile {
  trialId: string;
  name: string;
  folder: string | null;
  modifiedMs: number | null;
  sizeBytes: number;
}

/** Files that come in piece by piece: what is here of one stays, whatever becomes of the connection, the page or the server. */
export interface Arriving {
  receivedBytes(file: ArrivingFile): Promise<number>;
  /**
   * Adds what comes from a byte on. What came of it is kept, even where the connection breaks off in between.
   * @returns how much is here now; other than asked for where the file is at another byte, and then nothing was added
   */
  append(file: ArrivingFile, fromByte: number, chunks: AsyncIterable<Uint8Array>): Promise<number>;
  pathOf(file: ArrivingFile): string;
  /** It is in its place, or was refused. */
  forget(file: ArrivingFile): Promise<void>;
}

/** What nobody went on with for so long is cleared at a start. */
const KEPT_MS = 7 * 86_400_000;

/** @param folder of its own; it is made where it is not there */
export async function openArriving(folder: string): Promise<Arriving> {
  await mkdir(folder, { recursive: true });
  for (const name of await readdir(folder)) {
    const path = join(folder, name);
    if (Date.now() - (await stat(path)).mtimeMs > KEPT_MS) await rm(path, { force: true });
  }
  /** One piece of a file after the other, whoever sends them. */
  const busy = new Map<string, Promise<unknown>>();
  const pathOf = ({ trialId, name, folder: from, modifiedMs, sizeBytes }: ArrivingFile) =>
    join(
      folder,
      createHash('sha256')
        .update(JSON.stringify([trialId, from, name, modifiedMs, sizeBytes]))
        .digest('hex'),
    );

  async function receivedBytes(file: ArrivingFile): Promise<number> {
    try {
      return (await stat(pathOf(file))).size;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return 0;
      throw error;
    }
  }

  async function add(file: ArrivingFile, fromByte: number, chunks: AsyncIterable<Uint8Array>): Promise<number> {
    let at = await receivedBytes(file);
    if (at !== fromByte) return at;
    const part = await open(pathOf(file), 'a');
    try {
      for await (const chunk of chunks) {
        const fitting = chunk.subarray(0, file.sizeBytes - at);
        await part.writeFile(fitting);
        at += fitting.byteLength;
      }
    } finally {
      await part.sync();
      await part.close();
    }
    return at;
  }

  return {
    receivedBytes,
    pathOf,
    append(file, fromByte, chunks) {
      const path = pathOf(file);
      const turn = (busy.get(path) ?? Promise.resolve()).then(() => add(file, fromByte, chunks));
      const settled = turn.catch(() => undefined);
      busy.set(path, settled);
      void settled.then(() => busy.get(path) === settled && busy.delete(path));
      return turn;
    },
    forget: (file) => rm(pathOf(file), { force: true }),
  };
}
