import type { ByteSource } from './byteSource.ts';
import { WavError } from './wavFormat.ts';
import { chunksBytes, FMT_CHUNK_BYTES, putChunks, putFmt, putId, type WavChunks, type WavEncoding } from './wavParts.ts';

/** What is known of a file before its length is. */
export interface GrowingFormat extends WavEncoding {
  channels: number;
}

const NOT_KNOWN = 0xffffffff;
/** Room for the long sizes of EBU Tech 3306, should the file pass 4 GiB: a chunk of nothing until then. */
const DS64_CHUNK_BYTES = 36;

/**
 * The head of a WAVE file that is written as it is recorded: its sizes are all ones, as of a file that was
 * not closed, so that whatever happens the file can be read as far as it goes. Samples follow it.
 * @param chunks what else stands before the samples
 */
export function growingWavHead(format: GrowingFormat, chunks: WavChunks): Uint8Array {
  const fmt = new Uint8Array(FMT_CHUNK_BYTES);
  putFmt(fmt, 0, format, format.channels);
  return openWavHead([{ id: 'fmt ', body: fmt.subarray(8) }, ...chunks]);
}

/** The same head of chunks that say themselves how samples are stored. */
export function openWavHead(chunks: WavChunks): Uint8Array {
  const bytes = new Uint8Array(12 + DS64_CHUNK_BYTES + chunksBytes(chunks) + 8);
  const data = new DataView(bytes.buffer);
  putId(bytes, 'RIFF', 0);
  data.setUint32(4, NOT_KNOWN, true);
  putId(bytes, 'WAVE', 8);
  putId(bytes, 'JUNK', 12);
  data.setUint32(16, DS64_CHUNK_BYTES - 8, true);
  const at = putChunks(bytes, 12 + DS64_CHUNK_BYTES, chunks);
  putId(bytes, 'data', at);
  data.setUint32(at + 4, NOT_KNOWN, true);
  return bytes;
}

/**
 * The same head with the sizes of what was recorded: RIFF, or RF64 of EBU Tech 3306 where that is 4 GiB and more.
 * @param head as {@link growingWavHead} or {@link openWavHead} made it
 * @param dataBytes bytes of samples that follow it; an odd number is padded by whoever writes them
 */
export function closedWavHead(head: Uint8Array, dataBytes: number, bytesPerFrame: number): Uint8Array {
  const closed = head.slice();
  const data = new DataView(closed.buffer);
  const riffBytes = head.byteLength - 8 + dataBytes + (dataBytes % 2);
  if (riffBytes < NOT_KNOWN) {
    data.setUint32(4, riffBytes, true);
    data.setUint32(head.byteLength - 4, dataBytes, true);
    return closed;
  }
  putId(closed, 'RF64', 0);
  putId(closed, 'ds64', 12);
  data.setBigUint64(20, BigInt(riffBytes), true);
  data.setBigUint64(28, BigInt(dataBytes), true);
  data.setBigUint64(36, BigInt(Math.floor(dataBytes / bytesPerFrame)), true);
  return closed;
}

/** Where the samples of such a file begin, though there may be none yet. @throws WavError where it is none */
export function dataOffset(source: ByteSource): number {
  const head = new Uint8Array(8);
  let at = 12;
  while (source.read(at, head) === 8) {
    if (String.fromCharCode(...head.subarray(0, 4)) === 'data') return at + 8;
    const size = new DataView(head.buffer).getUint32(4, true);
    at += 8 + size + (size % 2);
  }
  throw new WavError('truncated', 'The file ends before its audio: there is no data chunk');
}
