import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import type { ByteSource } from '@marvet/core/audio/byteSource';

/** An open file as a byte source. */
export function descriptorSource(file: number): ByteSource {
  const sizeBytes = fstatSync(file).size;
  return {
    sizeBytes,
    read: (offset, into) => (offset >= sizeBytes ? 0 : readSync(file, into, 0, Math.min(into.byteLength, sizeBytes - offset), offset)),
  };
}

/** Opens a file as a byte source for the time of `work`, and closes it whatever happens. */
export function withFileSource<Result>(path: string, work: (source: ByteSource) => Result): Result {
  const file = openSync(path, 'r');
  try {
    return work(descriptorSource(file));
  } finally {
    closeSync(file);
  }
}
