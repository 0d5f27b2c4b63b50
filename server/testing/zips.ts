import type { Readable } from 'node:stream';
import yauzl from 'yauzl';
import { ZipFile } from 'yazl';

/** What lies in a ZIP, by another implementation than the one that wrote it. */
export function unzipped(bytes: Buffer): Promise<Map<string, Buffer>> {
  return new Promise((resolve, reject) => {
    const found = new Map<string, Buffer>();
    yauzl.fromBuffer(bytes, { lazyEntries: true }, (failure, zip) => {
      if (failure) return reject(failure);
      zip.on('entry', (entry) =>
        zip.openReadStream(entry, (error, stream) => {
          if (error) return reject(error);
          const parts: Buffer[] = [];
          stream.on('data', (part: Buffer) => parts.push(part));
          stream.on('end', () => {
            found.set(entry.fileName, Buffer.concat(parts));
            zip.readEntry();
          });
        }),
      );
      zip.on('end', () => resolve(found));
      zip.on('error', reject);
      zip.readEntry();
    });
  });
}

/** Files as a ZIP, packed or not. */
export async function zippedBytes(files: Iterable<readonly [name: string, bytes: Buffer]>, compress = false): Promise<Buffer> {
  const zip = new ZipFile();
  for (const [name, bytes] of files) zip.addBuffer(bytes, name, { compress });
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream as Readable) parts.push(part as Buffer);
  return Buffer.concat(parts);
}
