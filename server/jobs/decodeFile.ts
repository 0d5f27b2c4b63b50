import { closeSync, fsyncSync, openSync, writeSync } from 'node:fs';
import type { SoundFormat } from '@marvet/core/audio/decode/decodedSound';
import { openSound } from '@marvet/core/audio/decode/openSound';
import { soundToWav } from '@marvet/core/audio/decode/soundToWav';
import { descriptorSource } from '../audio/fileSource.ts';

/**
 * Takes the sound out of a file into a WAVE file beside it.
 * @returns what it was; null where it is no file with sound that is read
 * @throws DecodeError where it cannot be decoded
 */
export async function decodeFile(path: string, out: string): Promise<SoundFormat | null> {
  const from = openSync(path, 'r');
  try {
    const sound = await openSound(descriptorSource(from));
    if (!sound) return null;
    const to = openSync(out, 'wx');
    try {
      await soundToWav(sound, { append: (bytes) => void writeSync(to, bytes), rewriteHead: (head) => void writeSync(to, head, 0, head.byteLength, 0) });
      fsyncSync(to);
    } finally {
      closeSync(to);
    }
    return sound.format;
  } finally {
    closeSync(from);
  }
}
