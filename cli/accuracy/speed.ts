import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeWav } from '@marvet/core/audio/writeWav';
import { withGaps } from '@marvet/core/simulate/dryVoice';
import { talkersOf, wordsOf } from './real/talkers.ts';
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
const ROUNDS = 5;
const WORDS_OF_EACH = 20;

/** Ten minutes of speech, stereo, 24 bit: recorded talkers one after the other, or the demo's where there are none. */
function tenMinutes(path: string, recordings: string | null): void {
  const clips = recordings === null ? dryVoices().flat() : talkersOf('held').flatMap((talker) => wordsOf(talker, recordings, WORDS_OF_EACH));
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

/**
 * Processor time, user and system, of the whole command that measures a file, from its start to its end,
 * against a native loudness filter with true peak that prints nothing on the way; both on one core, in turn.
 */
export function speedAgainstNative(folder: string, recordings: string | null): SpeedComparison {
  const path = join(folder, 'ten-minutes.wav');
  tenMinutes(path, recordings);
  const pin = spawnSync('taskset', ['-c', '0', 'true']).status === 0 ? ['taskset', '-c', '0'] : [];
  const secondsOf = (...command: string[]) => {
    const { status, stderr } = spawnSync('bash', ['-c', 'TIMEFORMAT="%U %S"; time "$@"', 'bash', ...pin, ...command], { encoding: 'utf8', maxBuffer: 1 << 26 });
    if (status !== 0) throw new Error(`${command[0]} ended with ${status}: ${stderr}`);
    const [user, system] = (stderr.trim().split('\n').at(-1) as string).split(' ').map(Number) as [number, number];
    return user + system;
  };
  const command = fileURLToPath(new URL('../../scripts/measure.mjs', import.meta.url));
  const oursS: number[] = [];
  const nativeS: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    oursS.push(secondsOf(process.execPath, command, '--json', path));
    nativeS.push(secondsOf('ffmpeg', '-v', 'error', '-nostats', '-i', path, '-af', 'ebur128=peak=true', '-f', 'null', '-'));
  }
  return { audioS: LENGTH_S, oursS, nativeS };
}
