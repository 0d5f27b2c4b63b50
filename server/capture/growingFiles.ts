import { existsSync } from 'node:fs';
import { type FileHandle, mkdir, open, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { closedWavHead, dataOffset } from '@marvet/core/audio/growingWav';
import { withFileSource } from '../audio/fileSource.ts';

/** Files that grow piece by piece in the data folder. A piece that was acknowledged is on the disk. */
export interface GrowingFiles {
  pathOf(id: string): string;
  /** Makes the file with its head; what is there under that name is written over. */
  begin(id: string, head: Uint8Array): Promise<void>;
  /** How long the head of a file is; null where there is no such file. */
  headBytes(id: string): Promise<number | null>;
  /** How many bytes of samples are there; null where there is no such file. */
  dataBytes(id: string, headBytes: number): Promise<number | null>;
  /** Puts a piece at its place, cuts off what stood after it, and flushes it. */
  put(id: string, atByte: number, piece: Uint8Array): Promise<void>;
  /** Writes the sizes into the head: whole frames only. */
  close(id: string, headBytes: number, dataBytes: number, bytesPerFrame: number): Promise<void>;
  remove(id: string): Promise<void>;
  /** Lets all handles go. */
  release(): Promise<void>;
}

export async function openGrowingFiles(dataFolder: string): Promise<GrowingFiles> {
  const folder = join(dataFolder, 'captures');
  await mkdir(folder, { recursive: true });
  const pathOf = (id: string) => join(folder, `${id}.wav`);
  // Open while they grow: opening a file for every quarter of a second costs more than writing it.
  const handles = new Map<string, FileHandle>();
  async function handleOf(id: string): Promise<FileHandle> {
    const handle = handles.get(id) ?? (await open(pathOf(id), 'r+'));
    handles.set(id, handle);
    return handle;
  }
  async function letGo(id: string): Promise<void> {
    const handle = handles.get(id);
    handles.delete(id);
    await handle?.close();
  }
  return {
    pathOf,
    async begin(id, head) {
      const handle = await open(pathOf(id), 'w');
      await handle.writeFile(head);
      await handle.sync();
      await handle.close();
    },
    async headBytes(id) {
      if (!existsSync(pathOf(id))) return null;
      return withFileSource(pathOf(id), dataOffset);
    },
    async dataBytes(id, headBytes) {
      const found = await stat(pathOf(id)).catch((error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return null;
        throw error;
      });
      return found && Math.max(0, found.size - headBytes);
    },
    async put(id, atByte, piece) {
      const handle = await handleOf(id);
      await handle.truncate(atByte);
      await handle.write(piece, 0, piece.byteLength, atByte);
      await handle.datasync();
    },
    async close(id, headBytes, dataBytes, bytesPerFrame) {
      const handle = await handleOf(id);
      const whole = dataBytes - (dataBytes % bytesPerFrame);
      const head = new Uint8Array(headBytes);
      await handle.read(head, 0, headBytes, 0);
      await handle.truncate(headBytes + whole + (whole % 2));
      await handle.write(closedWavHead(head, whole, bytesPerFrame), 0, headBytes, 0);
      await handle.sync();
      await letGo(id);
    },
    async remove(id) {
      await letGo(id);
      await rm(pathOf(id), { force: true });
    },
    async release() {
      for (const id of [...handles.keys()]) await letGo(id);
    },
  };
}
