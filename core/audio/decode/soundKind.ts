/** Kinds of files with sound, besides WAVE, that are read. */
export const SOUND_KINDS = ['FLAC', 'AIFF', 'MP3', 'AAC', 'Ogg', 'MP4'] as const;
export type SoundKind = (typeof SOUND_KINDS)[number];

const text = (bytes: Uint8Array, at: number, length: number) => String.fromCharCode(...bytes.subarray(at, at + length));

/**
 * What kind of file it is by its first bytes, whatever its name says. MP4 stands for all of its family: M4A, MOV, 3GP.
 * @param head the first 64 bytes or more
 * @returns null when it is none that is read
 */
export function soundKind(head: Uint8Array): SoundKind | null {
  if (head.byteLength < 12) return null;
  // Tags may stand before the sound of any of them.
  if (text(head, 0, 3) === 'ID3') return 'MP3';
  if (text(head, 0, 4) === 'fLaC') return 'FLAC';
  if (text(head, 0, 4) === 'FORM' && (text(head, 8, 4) === 'AIFF' || text(head, 8, 4) === 'AIFC')) return 'AIFF';
  if (text(head, 0, 4) === 'OggS') return 'Ogg';
  if (['ftyp', 'moov', 'wide', 'mdat'].includes(text(head, 4, 4))) return 'MP4';
  const sync = head[0] === 0xff && ((head[1] as number) & 0xe0) === 0xe0;
  // The layer is 0 in AAC's own frames, and 1 in those of MPEG layer III.
  if (!sync) return null;
  return ((head[1] as number) & 0x06) === 0 ? 'AAC' : 'MP3';
}
