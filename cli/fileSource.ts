import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import type { ByteSource } from '@marvet/core/audio/byteSource';

/** Opens a file as a byte source for the time of `work`, and closes it whatever happens. */
export function withFileSource<Result>(path: string, work: (source: ByteSource) => Result): Result {
  const file = openSync(path, 'r');
  try {
    const sizeBytes = fstatSync(file).size;
    return work({
      sizeBytes,
      read: (offset, into) => (offset >= sizeBytes ? 0 : readSync(file, into, 0, Math.min(into.byteLength, sizeBytes - offset), offset)),
    });
  } finally {
    closeSync(file);
  }
}
