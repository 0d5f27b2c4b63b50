import type { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { webStream } from '../audio/webStream.ts';

/** A file of a ZIP: bytes that lie on the disk, a text, or what is read anew when its turn comes. */
export type ZipPart = { name: string; mtimeMs: number } & ({ path: string } | { text: string } | { read: () => Readable; sizeBytes: number });

/**
 * Files as one ZIP, as it is read, with nothing kept in memory and of any size (ZIP64 where it needs that). Sound is stored as it is:
 * it hardly gets smaller, and can be taken out of a broken archive.
 * @param onClosed told once it was read to its end, or nobody reads it any more
 * @returns its bytes, and how many there will be
 */
export function zipped(parts: readonly ZipPart[], onClosed: () => void = () => undefined): Promise<{ body: ReadableStream; sizeBytes: number }> {
  const zip = new ZipFile();
  for (const part of parts) {
    const options = { mtime: new Date(part.mtimeMs), compress: false };
    if ('path' in part) zip.addFile(part.path, part.name, options);
    else if ('read' in part) {
      const { read } = part;
      zip.addReadStreamLazy(part.name, { ...options, size: part.sizeBytes }, (ready) => ready(null, read()));
    } else zip.addBuffer(Buffer.from(part.text), part.name, options);
  }
  const output = zip.outputStream as Readable;
  output.once('close', onClosed);
  return new Promise((resolve, reject) => {
    // Bytes that go away while they are read end the answer in the middle: whoever fetches it sees that it is not whole.
    zip.on('error', (error: Error) => {
      reject(error);
      output.destroy(error);
    });
    const told = (sizeBytes?: number) => resolve({ body: webStream(output), sizeBytes: sizeBytes ?? -1 });
    zip.end(undefined, told);
  });
}
