import { spawnSync } from 'node:child_process';
import { closeSync, mkdtempSync, openSync, rmSync, truncateSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readSpan } from '@marvet/core/audio/readSamples';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { writeWav } from '@marvet/core/audio/writeWav';
import { spoken } from '@marvet/core/testing/signals';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readArguments, UsageError } from './arguments.ts';
import { withFileSource } from './fileSource.ts';
import type { Measured } from './measurePath.ts';

const script = fileURLToPath(new URL('./measure.ts', import.meta.url));
let folder: string;
const at = (name: string) => join(folder, name);

function measure(...args: string[]): { status: number | null; stdout: string; stderr: string } {
  return spawnSync(process.execPath, ['--import', import.meta.resolve('tsx'), script, ...args], { encoding: 'utf8', cwd: folder });
}
const json = (...args: string[]) => {
  const { status, stdout, stderr } = measure('--json', ...args);
  return { status, stderr, files: JSON.parse(stdout) as Measured[] };
};

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'marvet-cli-'));
  const talk = spoken(-26, -60, 3);
  const bytes = writeWav([talk, talk.map((x) => x / 2)], { encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 });
  writeFileSync(at('good.wav'), bytes);
  writeFileSync(at('mono.wav'), writeWav([talk], { encoding: 'pcm', bitDepth: 16, sampleRateHz: 48_000 }));
  writeFileSync(at('cut.wav'), bytes.subarray(0, bytes.length / 2));
  writeFileSync(at('headonly.wav'), bytes.subarray(0, 30));
  writeFileSync(at('empty.wav'), '');
  writeFileSync(at('picture.wav'), Buffer.from('ffd8ffe000104a46494600010101006000600000', 'hex'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('the command line', () => {
  it('gives one element a file in the order given, measures the good ones and tells what is wrong with the others', () => {
    const { status, files, stderr } = json('empty.wav', 'good.wav', 'nowhere.wav', folder, 'picture.wav', 'cut.wav', 'headonly.wav');
    expect(status).toBe(1);
    expect(files.map((file) => ('error' in file ? file.error.code : 'measured'))).toEqual(['empty', 'measured', 'not-found', 'not-wav', 'not-wav', 'measured', 'truncated']);
    expect(files.map((file) => file.file)[1]).toBe('good.wav');
    const cut = files[5] as Extract<Measured, { warnings: unknown }>;
    expect(cut.warnings.join()).toContain('truncated');
    expect(stderr).toContain('measuring: 100 %');
    expect(stderr).toContain('nowhere.wav');
    const good = files[1] as Extract<Measured, { warnings: unknown }>;
    expect(Object.keys(good.channels[0]!)).toEqual(['index', 'name', 'levels', 'loudness', 'activity', 'noise', 'spectrum', 'intelligibility', 'character', 'events']);
    expect(good.channels[0]!.loudness.integratedLufs! - good.channels[1]!.loudness.integratedLufs!).toBeCloseTo(6.02, 1);
  });

  it('measures files that are no WAVE files, says what they are, and takes them as a reference too', () => {
    const fixture = (name: string) => fileURLToPath(new URL(`../core/audio/decode/fixtures/${name}`, import.meta.url));
    const { status, files } = json('--reference', `${fixture('24.flac')}:0`, fixture('24.flac'), fixture('tones.m4a'), fixture('two-tracks.mp4'));
    expect(status).toBe(0);
    const [flac, aac, film] = files as Extract<Measured, { warnings: unknown }>[];
    expect(flac!.format).toMatchObject({ container: 'FLAC', codec: 'FLAC', lossy: false, bitDepth: 24 });
    expect(flac!.channels[0]!.pair!.levelDiffDb).toBeCloseTo(0, 1);
    expect(aac!.format).toMatchObject({ container: 'MP4', codec: 'AAC', lossy: true });
    expect(aac!.warnings[0]).toContain('lossy: AAC');
    expect(Math.abs(aac!.channels[0]!.levels.rmsDbfs! - flac!.channels[0]!.levels.rmsDbfs!)).toBeLessThan(0.3);
    expect(film!.channels).toHaveLength(3);
  });

  it('brings in target, room tone, dual mono and a reference', () => {
    const plain = json('mono.wav').files[0] as Extract<Measured, { warnings: unknown }>;
    const { status, files } = json('--target', '-27', '--dual-mono', '--room-tone', '0.05-0.4', '--reference', 'good.wav:1', 'mono.wav');
    expect(status).toBe(0);
    const [channel] = (files[0] as Extract<Measured, { warnings: unknown }>).channels;
    expect(channel!.loudness.integratedLufs! - plain.channels[0]!.loudness.integratedLufs!).toBeCloseTo(3.01, 1);
    expect(channel!.activity.pause).toEqual([[0.05, 0.4]]);
    expect(channel!.noise.practicalFloorDbfs).toBeCloseTo(channel!.noise.floorDbfs! - 27 - channel!.loudness.integratedLufs!, 6);
    expect(channel!.pair).toMatchObject({ polarity: 1 });
    expect(Math.abs(channel!.pair!.levelDiffDb! - 6.02)).toBeLessThan(0.1);
  });

  it('prints a table to read', () => {
    const { status, stdout } = measure('good.wav');
    expect(status).toBe(0);
    expect(stdout).toContain('Integrated loudness');
    expect(stdout).toContain('LUFS');
  });

  it.each([
    [[]],
    [['--loud', 'good.wav']],
    [['--target', 'high', 'good.wav']],
    [['--room-tone', '3-1', 'good.wav']],
    [['--reference', 'nowhere.wav', 'good.wav']],
    [['--reference', 'good.wav:7', 'good.wav']],
  ])('ends with 2 and says how it is used: %j', (args) => {
    const { status, stderr, stdout } = measure(...args);
    expect([status, stdout]).toEqual([2, '']);
    expect(stderr).toContain('--json');
  });

  it('reads arguments', () => {
    expect(readArguments(['--target', '-16', 'a.wav', 'b.wav'])).toMatchObject({ files: ['a.wav', 'b.wav'], targetLufs: -16, reference: null });
    expect(readArguments(['--reference', 'c:odd.wav:2', 'a.wav']).reference).toEqual({ file: 'c:odd.wav', channel: 2 });
    expect(() => readArguments(['--target', 'x', 'a.wav'])).toThrow(UsageError);
  });
});

/** A sparse RF64 file of 64-bit float silence with one sample at its very end. */
function sparseFile(path: string, dataBytes: number, sampleRateHz: number): void {
  const header = Buffer.alloc(80);
  header.write('RF64', 0, 'latin1');
  header.writeUInt32LE(0xffffffff, 4);
  header.write('WAVEds64', 8, 'latin1');
  header.writeUInt32LE(28, 16);
  header.writeBigUInt64LE(BigInt(dataBytes + 72), 20);
  header.writeBigUInt64LE(BigInt(dataBytes), 28);
  header.writeBigUInt64LE(BigInt(dataBytes / 8), 36);
  header.write('fmt ', 48, 'latin1');
  header.writeUInt32LE(16, 52);
  header.writeUInt16LE(3, 56);
  header.writeUInt16LE(1, 58);
  header.writeUInt32LE(sampleRateHz, 60);
  header.writeUInt32LE(sampleRateHz * 8, 64);
  header.writeUInt16LE(8, 68);
  header.writeUInt16LE(64, 70);
  header.write('data', 72, 'latin1');
  header.writeUInt32LE(0xffffffff, 76);
  writeFileSync(path, header);
  truncateSync(path, header.length + dataBytes);
  const file = openSync(path, 'r+');
  const last = Buffer.alloc(8);
  last.writeDoubleLE(0.5);
  writeSync(file, last, 0, 8, header.length + dataBytes - 8);
  closeSync(file);
}

describe('long files', () => {
  it('over 4 GiB are read to the last sample', () => {
    const dataBytes = 4_400_000_000;
    sparseFile(at('large.wav'), dataBytes, 192_000);
    withFileSource(at('large.wav'), (source) => {
      const layout = readWavHeader(source);
      expect(layout.format).toMatchObject({ container: 'RF64', frames: dataBytes / 8 });
      expect([...readSpan(source, layout, 0, dataBytes / 8 - 3, 4)]).toEqual([0, 0, 0.5, 0]);
    });
  });

  it('take no more memory than short ones, and less than 300 MB', () => {
    const probe = `import { measurePath } from ${JSON.stringify(fileURLToPath(new URL('./measurePath.ts', import.meta.url)))};
      const { frames } = (await measurePath({ path: process.argv[2], options: { targetLufs: -23, dualMono: false, roomTone: null }, reference: null }, () => undefined)).format;
      console.log(JSON.stringify({ frames, megabytes: process.resourceUsage().maxRSS / 1024 }));`;
    writeFileSync(at('probe.mts'), probe);
    const [short, long] = [6, 60].map((minutes) => {
      sparseFile(at('long.wav'), minutes * 60 * 8000 * 8, 8000);
      // A small nursery: else garbage that waits there for its turn would count as memory that is needed.
      const args = ['--max-semi-space-size=4', '--import', import.meta.resolve('tsx'), at('probe.mts'), at('long.wav')];
      const { stdout, stderr } = spawnSync(process.execPath, args, { encoding: 'utf8' });
      expect(stderr).toBe('');
      return (JSON.parse(stdout) as { megabytes: number }).megabytes;
    }) as [number, number];
    expect(long).toBeLessThan(300);
    // The samples alone of the 54 minutes more are 207 MB.
    expect(long - short).toBeLessThan(100);
  });
});
