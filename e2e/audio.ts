import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fieldRecordingWav } from '../core/simulate/fieldRecording.ts';

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
