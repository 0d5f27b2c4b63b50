import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bufferSource } from '@marvet/core/audio/byteSource';
import { writeWav } from '@marvet/core/audio/writeWav';
import { understand } from '@marvet/core/measure/chapter';
import type { Chapter } from '@marvet/core/measure/chapter.types';
import { DecayFinder } from '@marvet/core/measure/decay';
import { openFamilies } from '@marvet/core/measure/families';
import type { ChannelContext, Family, Finished } from '@marvet/core/measure/family';
import { measureFile } from '@marvet/core/measure/report';
import { DEFAULT_MEASURE_OPTIONS, NOTHING_MARKED } from '@marvet/core/measure/report.types';
import { ChannelTracks } from '@marvet/core/measure/tracks/channelTracks';
import { randomSource } from '@marvet/core/simulate/random';
import { benchHearing } from './benchHearing.ts';
import { benchOrder } from './benchOrder.ts';

/**
 * Prints how much audio each measure family gets through, in seconds of audio per second of processor
 * time on one core, how long takes are put into order, and how long a warm start takes. Figures of one run belong together: machines differ.
 */
const RATE_HZ = 48_000;
const LENGTH_S = 60;
const BLOCK = 4096;

/** Bursts of noise over a floor, with the pauses and the peaks of speech. */
function speechLike(lengthS: number): Float64Array {
  const random = randomSource(1);
  const signal = new Float64Array(lengthS * RATE_HZ);
  for (let index = 0; index < signal.length; index++) {
    const syllable = Math.max(0, Math.sin((2 * Math.PI * 2.1 * index) / RATE_HZ)) ** 2 * (0.3 + 0.7 * Math.max(0, Math.sin((2 * Math.PI * 0.4 * index) / RATE_HZ)));
    signal[index] = (0.08 * syllable + 0.0005) * random.normal();
  }
  return signal;
}

function throughput(work: () => void, audioS: number): number {
  work();
  return audioS / secondsOf(work);
}

function secondsOf(work: () => void): number {
  const before = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1e6;
}

const signal = speechLike(LENGTH_S);
const tracks = new ChannelTracks(RATE_HZ);
const context: ChannelContext = {
  sampleRateHz: RATE_HZ,
  lengthS: LENGTH_S,
  options: DEFAULT_MEASURE_OPTIONS,
  marked: NOTHING_MARKED,
  tracks,
  look: (startS, lengthS) => signal.slice(Math.round(startS * RATE_HZ), Math.round((startS + lengthS) * RATE_HZ)),
};
const families = openFamilies(context);
const spent = new Map<string, number>();
const time = (name: string, work: () => void) => spent.set(name, (spent.get(name) ?? 0) + secondsOf(work));
for (let at = 0; at + BLOCK <= signal.length; at += BLOCK) {
  const block = signal.subarray(at, at + BLOCK);
  time('shared by all', () => tracks.push(block, BLOCK));
  for (const [name, family] of Object.entries(families) as [string, Family<unknown>][]) if (family.push) time(name, () => family.push?.(block, BLOCK));
}
let chapter: Chapter | undefined;
time('words and events', () => {
  chapter = understand(tracks, 0, NOTHING_MARKED, new DecayFinder());
});
const found: Finished = {};
for (const [name, family] of Object.entries(families) as [string, Family<unknown>][]) {
  time(name, () => {
    if (chapter) family.settle?.(chapter);
    Object.assign(found, { [name]: family.finish(found, () => undefined) });
  });
}
console.log('Seconds of audio (one channel, 48 kHz) per second of processor time:');
for (const [name, seconds] of spent) console.log(`  ${name.padEnd(18)} ${(LENGTH_S / seconds).toFixed(0)}`);
const bytes = writeWav([signal, signal], { encoding: 'pcm', bitDepth: 24, sampleRateHz: RATE_HZ });
const whole = throughput(() => void measureFile(bufferSource(bytes)), LENGTH_S);
console.log(`  whole report of a stereo 24-bit file: ${whole.toFixed(0)} times real time (${(whole * 2).toFixed(0)} a channel)`);
benchOrder();
benchHearing(signal.subarray(0, 10 * RATE_HZ), RATE_HZ);

const folder = mkdtempSync(join(tmpdir(), 'marvet-bench-'));
const start = process.hrtime.bigint();
const server = spawn(process.execPath, [fileURLToPath(new URL('../dist/main.mjs', import.meta.url))], {
  env: { ...process.env, PORT: '0', MARVET_DATA: folder },
});
for await (const chunk of server.stdout) {
  if (String(chunk).includes('ready')) break;
}
console.log(`Server ready ${(Number(process.hrtime.bigint() - start) / 1e9).toFixed(2)} s after its start`);
server.kill('SIGTERM');
await new Promise((resolve) => server.once('exit', resolve));
rmSync(folder, { recursive: true, force: true });
