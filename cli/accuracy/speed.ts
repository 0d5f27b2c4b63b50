import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeWav } from '@marvet/core/audio/writeWav';
import { withGaps } from '@marvet/core/simulate/dryVoice';
import { dryVoices } from './voices.ts';

/** Seconds of processor time that each needed for the same file, run by run, in turn. */
export interface SpeedComparison {
  audioS: number;
  oursS: number[];
  nativeS: number[];
}

const RATE_HZ = 48_000;
const LENGTH_S = 600;
/** Other work on a machine makes rounds differ by a third; of so many some are undisturbed on either side. */
const ROUNDS = 9;

/** Ten minutes of the dry voices, stereo, 24 bit. */
function tenMinutes(path: string): void {
  const clips = dryVoices().flat();
  const round = withGaps(
    clips,
    clips.map((_, index) => 0.4 + 0.1 * (index % 4)),
    RATE_HZ,
  );
  const left = new Float64Array(LENGTH_S * RATE_HZ);
  for (let at = 0; at < left.length; at += round.length + RATE_HZ) left.set(round.subarray(0, Math.min(round.length, left.length - at)), at);
  const right = left.map((_, index) => 0.5 * (left[Math.max(0, index - 400)] as number));
  writeFileSync(path, writeWav([left, right], { encoding: 'pcm', bitDepth: 24, sampleRateHz: RATE_HZ }));
}

/** The whole report, from the start of its program to its end, against a native loudness filter with true peak; both on one core, in turn. */
export function speedAgainstNative(folder: string): SpeedComparison {
  const path = join(folder, 'ten-minutes.wav');
  tenMinutes(path);
  const pin = spawnSync('taskset', ['-c', '0', 'true']).status === 0 ? ['taskset', '-c', '0'] : [];
  const run = (...command: string[]) => {
    const [program, ...args] = [...pin, ...command] as [string, ...string[]];
    const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8' });
    if (status !== 0) throw new Error(`${command[0]} ended with ${status}: ${stderr}`);
    return stdout + stderr;
  };
  const oneFile = fileURLToPath(new URL('./measureOne.ts', import.meta.url));
  const oursS: number[] = [];
  const nativeS: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    oursS.push(Number(run(process.execPath, '--import', 'tsx', oneFile, path)));
    const told = run('ffmpeg', '-benchmark', '-nostats', '-i', path, '-af', 'ebur128=peak=true', '-f', 'null', '-');
    const [, user, system] = /utime=([\d.]+)s stime=([\d.]+)s/.exec(told) ?? [];
    nativeS.push(Number(user) + Number(system));
  }
  return { audioS: LENGTH_S, oursS, nativeS };
}
