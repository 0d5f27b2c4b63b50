import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fieldRecordingWav } from '../core/simulate/fieldRecording.ts';
import { concat, mixed, silence, whiteNoise } from '../core/testing/signals.ts';

/** Words of noise over a floor; the floor sets the voice over noise. */
export function spoken(levelDbfs: number, floorDbfs: number, seed: number): Float64Array {
  const words = concat(
    silence(0.5),
    whiteNoise(levelDbfs, 0.9, seed),
    silence(0.4),
    whiteNoise(levelDbfs, 1.1, seed + 1),
    silence(0.4),
    whiteNoise(levelDbfs, 0.8, seed + 2),
    silence(0.5),
  );
  return mixed(words, whiteNoise(floorDbfs, words.length / 48_000, seed + 3));
}

interface RecorderFile {
  name: string;
  scene?: string;
  take?: string;
  trackNames: string[];
  channels: Float64Array[];
}

/** Writes files as a field recorder does, and returns their paths. */
export function writeRecorderFiles(folder: string, files: RecorderFile[]): Promise<string[]> {
  return Promise.all(
    files.map(async ({ name, scene = '', take = '', trackNames, channels }) => {
      const path = join(folder, name);
      await writeFile(
        path,
        fieldRecordingWav({ channels, sampleRateHz: 48_000, project: 'Test', scene, take, tape: '', note: '', trackNames, startedAtMs: Date.UTC(2026, 4, 1, 10) }),
      );
      return path;
    }),
  );
}
