import { closeSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DecodeError, type SoundFormat } from '@marvet/core/audio/decode/decodedSound';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { WavError } from '@marvet/core/audio/wavFormat';
import { descriptorSource, withFileSource } from './fileSource.ts';

/** A file as a WAVE file: itself, or one that its sound was taken out into. */
export interface SoundFile {
  wavPath: string;
  /** What it was, where its sound had to be taken out. */
  sound: SoundFormat | null;
  /** Removes what was made. */
  tidy(): void;
}

/**
 * Opens any file with sound that is read.
 * @throws WavError where it is none, or cannot be decoded
 */
export async function openSoundFile(path: string): Promise<SoundFile> {
  try {
    withFileSource(path, readWavHeader);
    return { wavPath: path, sound: null, tidy: () => undefined };
  } catch (error) {
    if (!(error instanceof WavError) || error.code !== 'not-wav') throw error;
    return takenOut(path, error);
  }
}

async function takenOut(path: string, notWav: WavError): Promise<SoundFile> {
  const folder = mkdtempSync(join(tmpdir(), 'marvet-sound-'));
  const tidy = () => rmSync(folder, { recursive: true, force: true });
  const from = openSync(path, 'r');
  try {
    const [{ openSound }, { soundToWav }] = await Promise.all([import('@marvet/core/audio/decode/openSound'), import('@marvet/core/audio/decode/soundToWav')]);
    const sound = await openSound(descriptorSource(from));
    if (!sound) throw notWav;
    const wavPath = join(folder, 'sound.wav');
    const to = openSync(wavPath, 'wx');
    try {
      await soundToWav(sound, { append: (bytes) => void writeSync(to, bytes), rewriteHead: (head) => void writeSync(to, head, 0, head.byteLength, 0) });
    } finally {
      closeSync(to);
    }
    return { wavPath, sound: sound.format, tidy };
  } catch (error) {
    tidy();
    throw error instanceof DecodeError ? new WavError('unsupported-format', error.message) : error;
  } finally {
    closeSync(from);
  }
}
