import type { ByteSource } from '../byteSource.ts';

/** Seconds from 1904 to 1970. */
const EPOCH_S = 2_082_844_800;
/** No camera is older; a clock that was never set says 1904 or 1970. */
const EARLIEST_MS = Date.UTC(1990, 0, 1);
const MOST_BOXES = 4096;

/**
 * When a film began, by the camera's clock: the creation time of its movie header (ISO/IEC 14496-12, 8.2.2), which is universal
 * time by the standard. Null where it says none, or one that no camera can have.
 */
export function movieCreatedAt(source: ByteSource): string | null {
  const movie = boxIn(source, 0, source.sizeBytes, 'moov');
  const header = movie && boxIn(source, movie.startByte, movie.endByte, 'mvhd');
  if (!header) return null;
  const bytes = new Uint8Array(12);
  if (source.read(header.startByte, bytes) < 12) return null;
  const view = new DataView(bytes.buffer);
  const seconds = view.getUint8(0) === 1 ? Number(view.getBigUint64(4)) : view.getUint32(4);
  const atMs = (seconds - EPOCH_S) * 1000;
  return atMs >= EARLIEST_MS && atMs < EARLIEST_MS + 3e12 ? new Date(atMs).toISOString() : null;
}

/** The first box of a kind among those that lie side by side between two places: where what it holds begins, and ends. */
function boxIn(source: ByteSource, startByte: number, endByte: number, kind: string): { startByte: number; endByte: number } | null {
  const head = new Uint8Array(16);
  const view = new DataView(head.buffer);
  let at = startByte;
  for (let boxes = 0; boxes < MOST_BOXES && at + 8 <= endByte; boxes++) {
    if (source.read(at, head) < 8) return null;
    const short = view.getUint32(0);
    const headBytes = short === 1 ? 16 : 8;
    // A size of 0 runs to the end of the file, one of 1 says that its size follows in eight bytes.
    const sizeBytes = short === 0 ? endByte - at : short === 1 ? Number(view.getBigUint64(8)) : short;
    if (sizeBytes < headBytes) return null;
    if (String.fromCharCode(...head.subarray(4, 8)) === kind) return { startByte: at + headBytes, endByte: Math.min(endByte, at + sizeBytes) };
    at += sizeBytes;
  }
  return null;
}
