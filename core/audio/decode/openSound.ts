import type { ByteSource } from '../byteSource.ts';
import { type DecodedSound, DecodeError } from './decodedSound.ts';
import { soundKind } from './soundKind.ts';

/**
 * Opens a file with sound that is no WAVE file: FLAC, AIFF, MP3, AAC, Ogg with Vorbis or Opus, and the sound of MP4
 * and MOV. Its samples come in blocks, and memory does not grow with it.
 * @returns null where it is none of these
 * @throws DecodeError where it is one of them and cannot be decoded
 */
export async function openSound(source: ByteSource): Promise<DecodedSound | null> {
  const head = new Uint8Array(64);
  const kind = soundKind(head.subarray(0, source.read(0, head)));
  if (kind === null) return null;
  try {
    // What takes files apart is large, and most files are WAVE files: it is loaded when it is needed.
    if (kind === 'MP4') return await (await import('./filmSound.ts')).filmSound(source);
    return await (await import('./streamedSound.ts')).streamedSound(source, kind);
  } catch (error) {
    if (error instanceof DecodeError) throw error;
    throw new DecodeError(`It begins like ${kind}, but cannot be decoded: ${(error as Error).message}`);
  }
}
