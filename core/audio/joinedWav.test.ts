import { describe, expect, it } from 'vitest';
import { chunk, fmt, join, riff } from '../testing/oddWav.ts';
import { bufferSource } from './byteSource.ts';
import { filled } from './filled.ts';
import { joinedWav } from './joinedWav.ts';
import { readChannel } from './readSamples.ts';
import { readWavHeader } from './readWavHeader.ts';
import { writeWav } from './writeWav.ts';

const PCM24 = { encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 } as const;
const ramp = (from: number, count: number) => filled(count, (index) => (from + index) / 2 ** 23);
const written = (files: Uint8Array[]) => {
  const { head, parts, padBytes } = joinedWav(files.map(bufferSource));
  return join(head, ...parts.map(({ dataOffset, dataBytes }, index) => files[index]!.subarray(dataOffset, dataOffset + dataBytes)), new Uint8Array(padBytes));
};

describe('files joined to one', () => {
  it('have every sample of each, in their order, in all channels', () => {
    const files = [
      [0, 1001],
      [1001, 7],
      [1008, 4000],
    ].map(([from, count]) => writeWav([ramp(from!, count!), ramp(100_000 + from!, count!)], PCM24));
    const bytes = written(files);
    const source = bufferSource(bytes);
    const layout = readWavHeader(source);
    expect(layout.format).toMatchObject({ container: 'RIFF', frames: 5008, channels: 2, bitDepth: 24 });
    expect(layout.warnings).toEqual([]);
    expect(bytes.byteLength % 2).toBe(0);
    for (const channel of [0, 1]) expect([...readChannel(source, layout, channel)]).toEqual([...ramp(channel * 100_000, 5008)]);
  });

  it('keep what the first says of itself, wherever it stood, and leave out half a frame at a seam', () => {
    const data = chunk('data', new Uint8Array(24).fill(1));
    const note = chunk('note', new TextEncoder().encode('of the day'));
    const first = riff([chunk('fmt ', fmt(1, 2, 48_000, 16)), data, note]);
    const second = riff([chunk('note', new TextEncoder().encode('not this')), chunk('fmt ', fmt(1, 2, 48_000, 16)), chunk('data', new Uint8Array(10).fill(2))]);
    const bytes = written([first, second]);
    expect(readWavHeader(bufferSource(bytes)).format.frames).toBe(6 + 2);
    const text = new TextDecoder('latin1').decode(bytes);
    expect(text).toContain('of the day');
    expect(text).not.toContain('not this');
  });

  it('of more than 4 GiB are RF64 with the sizes of the whole', () => {
    const part = (gigabytes: number) => {
      const head = riff([chunk('fmt ', fmt(1, 2, 48_000, 24)), chunk('data', new Uint8Array(0), gigabytes * 1e9)], 'RIFF', gigabytes * 1e9 + 36);
      return { sizeBytes: head.byteLength + gigabytes * 1e9, read: (offset: number, into: Uint8Array) => bufferSource(head).read(offset, into) || into.fill(0).byteLength };
    };
    const { head, parts } = joinedWav([part(3), part(3)]);
    expect(new TextDecoder('latin1').decode(head.subarray(0, 16))).toMatch(/^RF64.{4}WAVEds64$/s);
    expect(parts.map(({ dataBytes }) => dataBytes)).toEqual([3e9, 3e9]);
    const whole = { sizeBytes: head.byteLength + 6e9, read: (offset: number, into: Uint8Array) => bufferSource(head).read(offset, into) || into.fill(0).byteLength };
    expect(readWavHeader(whole).format).toMatchObject({ container: 'RF64', frames: 1e9 });
  });

  it('that are stored in different ways are refused, with both', () => {
    const files = [writeWav([ramp(0, 10)], PCM24), writeWav([ramp(0, 10)], { ...PCM24, sampleRateHz: 44_100 })];
    expect(() => written(files)).toThrow('44100 is not 48000');
  });
});
