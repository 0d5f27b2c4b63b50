/** Bytes that can be read at any place: a file on a disk, or a buffer. Reading is synchronous. */
export interface ByteSource {
  readonly sizeBytes: number;
  /** Fills `into` from `offset` on and returns how many bytes there were; fewer only at the end. */
  read(offset: number, into: Uint8Array): number;
}

/** A byte source over a buffer. */
export function bufferSource(bytes: Uint8Array): ByteSource {
  return {
    sizeBytes: bytes.byteLength,
    read(offset, into) {
      const part = bytes.subarray(Math.min(offset, bytes.byteLength), Math.min(offset + into.byteLength, bytes.byteLength));
      into.set(part);
      return part.byteLength;
    },
  };
}
