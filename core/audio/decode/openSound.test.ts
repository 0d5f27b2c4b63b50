import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CODED_FRAMES, CODED_RATE_HZ, CODED_TONES_HZ, codedSignal } from '../../testing/codedSignal.ts';
import { bufferSource } from '../byteSource.ts';
import { closedWavHead, growingWavHead } from '../growingWav.ts';
import { readChannel } from '../readSamples.ts';
import { readWavHeader } from '../readWavHeader.ts';
import { DecodeError } from './decodedSound.ts';
import { openSound } from './openSound.ts';
import { wavBytesOf, wavFormatOf } from './soundAsWav.ts';

const bytesOf = (name: string) => new Uint8Array(readFileSync(new URL(`./fixtures/${name}`, import.meta.url)));

/** A fixture decoded, and written as the WAVE file that it is kept as. */
async function decoded(name: string) {
  const sound = (await openSound(bufferSource(bytesOf(name))))!;
  const parts: Uint8Array[] = [];
  for await (const block of sound.blocks) parts.push(wavBytesOf(block, sound.format));
  const wav = wavFormatOf(sound.format);
  const data = Buffer.concat(parts);
  const source = bufferSource(Buffer.concat([closedWavHead(growingWavHead(wav, []), data.byteLength, (wav.channels * wav.bitDepth) / 8), data]));
  const layout = readWavHeader(source);
  expect(layout.warnings).toEqual([]);
  return { sound: sound.format, layout, channels: Array.from({ length: layout.format.channels }, (_, channel) => readChannel(source, layout, channel)) };
}

describe('what is lossless comes back to its last bit', () => {
  it.each([
    ['24.flac', 24, 'FLAC', 'FLAC'],
    ['16.flac', 16, 'FLAC', 'FLAC'],
    ['24.aiff', 24, 'AIFF', 'PCM'],
    ['camera.mov', 16, 'MOV', 'PCM'],
  ] as const)('%s', async (name, bits, container, codec) => {
    const { sound, layout, channels } = await decoded(name);
    expect(sound).toMatchObject({ container, codec, lossy: false, bitDepth: bits, channels: 2, sampleRateHz: CODED_RATE_HZ });
    expect(layout.format).toMatchObject({ encoding: 'pcm', bitDepth: bits, frames: CODED_FRAMES });
    for (const channel of [0, 1] as const) expect(channels[channel]).toEqual(codedSignal(channel, bits));
  });
});

/** Level of a tone in a stretch, and how late it is against the signal that was coded, in samples of its phase. */
function toneOf(samples: Float64Array, toneHz: number): { level: number; phase: number } {
  const [from, to] = [4800, 9600];
  let [re, im] = [0, 0];
  for (let frame = from; frame < to; frame++) {
    const angle = (2 * Math.PI * toneHz * frame) / CODED_RATE_HZ;
    re += (samples[frame] as number) * Math.sin(angle);
    im += (samples[frame] as number) * Math.cos(angle);
  }
  return { level: 20 * Math.log10(Math.hypot(re, im)), phase: Math.atan2(im, re) };
}

describe('what is lossy comes back in its place, each channel its own', () => {
  it.each([
    ['tones.mp3', 'MP3', 'MP3', [0, 1]],
    ['tones.m4a', 'MP4', 'AAC', [0, 1]],
    ['tones.ogg', 'Ogg', 'Vorbis', [0, 1]],
    ['tones.opus', 'Ogg', 'Opus', [0, 1]],
    ['two-tracks.mp4', 'MP4', 'AAC', [0, 1, 1]],
  ] as const)('%s', async (name, container, codec, holds) => {
    const { sound, layout, channels } = await decoded(name);
    expect(sound).toMatchObject({ container, codec, lossy: true, channels: holds.length, sampleRateHz: CODED_RATE_HZ });
    expect(layout.format).toMatchObject({ encoding: 'float', bitDepth: 32 });
    expect(Math.abs(layout.format.frames - CODED_FRAMES)).toBeLessThan(1500);
    holds.forEach((held, channel) => {
      const meant = toneOf(codedSignal(held, 16), CODED_TONES_HZ[held]);
      const heard = toneOf(channels[channel] as Float64Array, CODED_TONES_HZ[held]);
      expect(Math.abs(heard.level - meant.level)).toBeLessThan(0.5);
      // Within a tenth of a turn: at 440 Hz eleven samples.
      expect(Math.abs(heard.phase - meant.phase)).toBeLessThan(0.63);
    });
  });

  it('AAC without a container is read; its run-in stays, since nothing in it says how long it is', async () => {
    const { sound, channels } = await decoded('tones.aac');
    expect(sound).toMatchObject({ container: 'AAC', codec: 'AAC', lossy: true, channels: 2 });
    expect(Math.abs(toneOf(channels[0] as Float64Array, CODED_TONES_HZ[0]).level - toneOf(codedSignal(0, 16), CODED_TONES_HZ[0]).level)).toBeLessThan(1);
  });
});

describe('what is damaged', () => {
  it('is none of these: nothing is said, and others may look', async () => {
    expect(await openSound(bufferSource(new TextEncoder().encode('minutes of the meeting on the jetty')))).toBeNull();
    expect(await openSound(bufferSource(new Uint8Array(5)))).toBeNull();
  });

  const NAMES = ['24.flac', '24.aiff', 'tones.mp3', 'tones.m4a', 'tones.ogg', 'tones.opus', 'two-tracks.mp4', 'camera.mov'];
  it.each(NAMES)('%s cut anywhere, or with bytes turned over, ends in samples or in a word, and never hangs', async (name) => {
    const bytes = bytesOf(name);
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 13, max: bytes.length }), fc.array(fc.tuple(fc.nat(bytes.length - 1), fc.nat(255)), { maxLength: 8 }), async (length, flips) => {
        const hurt = bytes.slice(0, length);
        for (const [at, value] of flips) if (at >= 12 && at < length) hurt[at] = value;
        try {
          const sound = await openSound(bufferSource(hurt));
          let frames = 0;
          if (sound) for await (const block of sound.blocks) frames += block[0]?.length ?? 0;
          expect(frames).toBeLessThan(20 * CODED_FRAMES);
        } catch (error) {
          expect(error).toBeInstanceOf(Error);
          expect((error as Error).message.length).toBeGreaterThan(10);
        }
      }),
      { numRuns: 25 },
    );
  });

  it('a film without sound says so', async () => {
    const { message } = await openSound(bufferSource(new Uint8Array([0, 0, 0, 16, ...new TextEncoder().encode('ftypisom'), 0, 0, 0, 0]))).then(
      () => new DecodeError(''),
      (error: DecodeError) => error,
    );
    expect(message).not.toBe('');
  });
});
