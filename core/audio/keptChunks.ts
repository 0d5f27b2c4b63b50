import type { ByteSource } from './byteSource.ts';
import { wavChunks } from './readWavHeader.ts';
import type { WavChunks } from './wavParts.ts';

/** The samples, what is only there to fill room, and what a head of more than 4 GiB is written with anew. */
const NEVER = ['data', 'JUNK', 'FLLR', 'PAD ', 'ds64'];
/** A larger chunk beside the samples is none of a recorder's notes. */
const LARGEST_KEPT_BYTES = 4 << 20;

/**
 * The chunks of a WAVE file that are carried over into a copy of it, as they are.
 * @param anew those that the copy has of its own
 * @throws WavError where it is no WAVE file
 */
export function keptChunks(source: ByteSource, anew: readonly string[]): WavChunks {
  const kept = wavChunks(source).chunks.filter(({ id, presentBytes }) => !NEVER.includes(id) && !anew.includes(id) && presentBytes <= LARGEST_KEPT_BYTES);
  return kept.map((chunk) => ({ id: chunk.id, body: chunkBody(source, chunk) }));
}

/** What a chunk holds, as far as the file reaches. */
export function chunkBody(source: ByteSource, { offset, presentBytes }: { offset: number; presentBytes: number }): Uint8Array {
  const body = new Uint8Array(presentBytes);
  source.read(offset, body);
  return body;
}
