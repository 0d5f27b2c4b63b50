import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeWav } from '../core/audio/writeWav.ts';
import { type HeardBy, onMicrophone } from '../core/testing/onMicrophone.ts';
import { dryClip } from '../demo/dryClip.ts';

const RATE_HZ = 48_000;
/** What was said, a take each. */
const PERFORMANCES = ['ferrier-neutral', 'netmaker-neutral', 'ferrier-counting', 'netmaker-plosives'];
/** Three recorders that were started and stopped when it came to somebody's mind. */
export const MICROPHONES: Record<string, Omit<HeardBy, 'seed'>> = {
  'lav A': { beforeS: 2.1, afterS: 1, snrDb: 32, gainDb: -6, shelfDb: -9, room: { share: 0.05, decayS: 0.3 }, driftPpm: 12 },
  boom: { beforeS: 5.4, afterS: 3.2, snrDb: 24, gainDb: -14, shelfDb: 2, room: { share: 0.5, decayS: 0.4 }, driftPpm: -8 },
  camera: { beforeS: 0.7, afterS: 6, snrDb: 9, gainDb: -22, shelfDb: -2, room: { share: 1.5, decayS: 0.5 }, driftPpm: 35 },
};

/** A folder with twelve files of three microphones, without slates, plan or clocks. */
export async function threeMicrophones(): Promise<string> {
  const made = await mkdtemp(join(tmpdir(), 'marvet-yesterday-'));
  for (const [take, clip] of PERFORMANCES.entries()) {
    for (const [place, [name, heard]] of Object.entries(MICROPHONES).entries()) {
      const samples = onMicrophone(dryClip(clip, RATE_HZ), { ...heard, seed: 10 * take + place }, RATE_HZ);
      await writeFile(join(made, `${name}_${take + 1}.wav`), writeWav([samples], { encoding: 'pcm', bitDepth: 24, sampleRateHz: RATE_HZ }));
    }
  }
  return made;
}

/** Paths of all of them. */
export const filesOf = (folder: string): string[] => PERFORMANCES.flatMap((_, take) => Object.keys(MICROPHONES).map((name) => join(folder, `${name}_${take + 1}.wav`)));
