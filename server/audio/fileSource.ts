import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import type { ByteSource } from '@marvet/core/audio/byteSource';

/** An open file as a byte source; it may grow. */
export function descriptorSource(descriptor: number): ByteSource {
  return {
    get sizeBytes() {
      return fstatSync(descriptor).size;
    },
    read(offset, into) {
      let got = 0;
      while (got < into.byteLength) {
        const count = readSync(descriptor, into, got, into.byteLength - got, offset + got);
        if (count === 0) break;
        got += count;
      }
      return got;
    },
  };
}

/** Opens a file as a byte source for the time of `work`, and closes it whatever happens. */
export function withFileSource<Result>(path: string, work: (source: ByteSource) => Result): Result {
  const descriptor = openSync(path, 'r');
  try {
    return work(descriptorSource(descriptor));
  } finally {
    closeSync(descriptor);
  }
}
