// Makes the coded files of core/audio/decode/fixtures with a command-line encoder (Debian's package ffmpeg). They are committed; this is how they were made:
// npx tsx scripts/coded-fixtures.ts
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeWav } from '../core/audio/writeWav.ts';
import { CODED_RATE_HZ, codedSignal } from '../core/testing/codedSignal.ts';

const here = (name: string) => new URL(`../core/audio/decode/fixtures/${name}`, import.meta.url).pathname;
const folder = mkdtempSync(join(tmpdir(), 'coded-'));
const wavs = ([16, 24] as const).map((bitDepth) => {
  const path = join(folder, `${bitDepth}.wav`);
  writeFileSync(path, writeWav([codedSignal(0, bitDepth), codedSignal(1, bitDepth)], { encoding: 'pcm', bitDepth, sampleRateHz: CODED_RATE_HZ }));
  return path;
});
const [in16, in24] = wavs as [string, string];
const encode = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', '-bitexact', ...args]);
const picture = ['-f', 'lavfi', '-i', 'color=c=gray:size=32x18:rate=5:duration=0.3'];
encode('-i', in24, '-c:a', 'flac', '-sample_fmt', 's32', '-bits_per_raw_sample', '24', here('24.flac'));
encode('-i', in16, '-c:a', 'flac', here('16.flac'));
encode('-i', in24, '-c:a', 'pcm_s24be', here('24.aiff'));
encode('-i', in16, '-c:a', 'libmp3lame', '-b:a', '128k', here('tones.mp3'));
encode('-i', in16, '-c:a', 'aac', '-b:a', '128k', here('tones.m4a'));
encode('-i', in16, '-c:a', 'aac', '-b:a', '128k', '-f', 'adts', here('tones.aac'));
encode('-i', in16, '-c:a', 'libvorbis', '-q:a', '5', here('tones.ogg'));
encode('-i', in16, '-c:a', 'libopus', '-b:a', '96k', here('tones.opus'));
const second = ['-filter_complex', '[1:a]asplit[a][b];[b]pan=mono|c0=c1[mono]'];
encode(...picture, '-i', in16, ...second, '-map', '0:v', '-map', '[a]', '-map', '[mono]', '-c:v', 'mpeg4', '-c:a', 'aac', '-b:a', '96k', here('two-tracks.mp4'));
encode(...picture, '-i', in16, '-map', '0:v', '-map', '1:a', '-c:v', 'mpeg4', '-c:a', 'pcm_s16le', here('camera.mov'));
rmSync(folder, { recursive: true });
