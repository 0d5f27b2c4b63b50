import { Readable } from 'node:stream';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { CLIP_RATE_HZ } from '@marvet/core/listen/clipForm';
import { type Reel, reelChapters } from '@marvet/core/listen/reel';
import type { ReelShell } from '@marvet/core/listen/reelPage';
import { reelHead, reelPartBytes } from '@marvet/core/listen/reelWav';
import { spokenLetter } from '@marvet/core/listen/spokenLetter';
import type { ZipPart } from './zipped.ts';

/** The clips of a reel. */
export interface ReelClips {
  /** What each is called in chapters. */
  names: readonly string[];
  /** The WAVE file of a clip, by its place; all are alike in everything but their sound. */
  clipAt(place: number): Promise<Uint8Array>;
  matchedLufs: number;
}

/** Letters before the clips of a reel, as loud as they are. */
export const spokenLetters = (clips: number, matchedLufs: number): Float64Array[] => BLIND_LETTERS.slice(0, clips).map((letter) => spokenLetter(letter, matchedLufs));

/** How long letters last. */
export const lettersS = (letters: readonly Float64Array[]): number[] => letters.map(({ length }) => length / CLIP_RATE_HZ);

/** A reel as files of a ZIP: its sound with markers, its page, and its chapters. Clips are read anew when their turn comes. */
export async function reelZipParts(reel: Reel, { names, clipAt, matchedLufs }: ReelClips, page: ReelShell): Promise<ZipPart[]> {
  const first = await clipAt(0);
  const { head, sizeBytes, padBytes } = reelHead(reel, names, readWavHeader(bufferSource(first)).format.channels);
  const letters = spokenLetters(names.length, matchedLufs);
  async function* sound() {
    yield head;
    for (const [index, { clip }] of reel.parts.entries()) yield reelPartBytes(reel, index, await clipAt(clip), letters[clip] ?? null);
    if (padBytes > 0) yield new Uint8Array(padBytes);
  }
  async function* pageBytes() {
    yield page.head;
    for (const place of names.keys()) yield `${page.before}${Buffer.from(await clipAt(place)).toString('base64')}${page.after}`;
    yield page.tail;
  }
  const mtimeMs = Date.now();
  return [
    { name: 'reel.wav', mtimeMs, read: () => Readable.from(sound()), sizeBytes },
    { name: 'reel.html', mtimeMs, read: () => Readable.from(pageBytes()), sizeBytes: pageSizeBytes(page, names.length, first.byteLength) },
    { name: 'reel.vtt', mtimeMs, text: reelChapters(reel, names) },
  ];
}

/** How many bytes a page has, with its clips in the letters of base64. */
function pageSizeBytes({ head, before, after, tail }: ReelShell, clips: number, clipBytes: number): number {
  const bytes = (text: string) => Buffer.byteLength(text);
  return bytes(head) + bytes(tail) + clips * (bytes(before) + 4 * Math.ceil(clipBytes / 3) + bytes(after));
}
