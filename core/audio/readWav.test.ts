import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isCutShort } from '../domain/fileFormat.ts';
import { measureFile } from '../measure/report.ts';
import { fieldRecordingWav } from '../simulate/fieldRecording.ts';
import { chunk, extensible, fmt, join, riff, samples24 } from '../testing/oddWav.ts';
import { sine } from '../testing/signals.ts';
import { type ByteSource, bufferSource } from './byteSource.ts';
import { readChannel } from './readSamples.ts';
import { readWavHeader } from './readWavHeader.ts';
import { WavError } from './wavFormat.ts';
import { writeWav } from './writeWav.ts';

const tone = sine(1000, -6, 0.5);
const open = (bytes: Uint8Array) => readWavHeader(bufferSource(bytes));
const codeOf = (bytes: Uint8Array) => {
  try {
    open(bytes);
  } catch (error) {
    if (error instanceof WavError) return error.code;
    throw error;
  }
  return 'read';
};

describe('encodings', () => {
  it.each([
    ['pcm', 16, 1 / 32_768],
    ['pcm', 24, 1 / 8_388_608],
    ['pcm', 32, 1 / 2_147_483_648],
    ['float', 32, 1e-7],
    ['float', 64, 0],
  ] as const)('%s %i bit keeps its samples', (encoding, bitDepth, step) => {
    const bytes = writeWav([tone, tone.map((value) => -value)], { encoding, bitDepth, sampleRateHz: 48_000 });
    const layout = open(bytes);
    expect(layout.format).toMatchObject({ container: 'RIFF', encoding, bitDepth, channels: 2, frames: tone.length, durationS: 0.5 });
    const read = readChannel(bufferSource(bytes), layout, 1);
    expect(Math.max(...read.map((value, index) => Math.abs(value + tone[index]!)))).toBeLessThanOrEqual(step);
  });

  it('reads WAVE_FORMAT_EXTENSIBLE with its channel mask', () => {
    const layout = open(extensible([tone, tone], 0x3));
    expect(layout.channelMask).toBe(0x3);
    expect(layout.format).toMatchObject({ encoding: 'pcm', bitDepth: 24, frames: tone.length });
  });

  it('reads 32 channels', () => {
    const bytes = writeWav(
      Array.from({ length: 32 }, (_, index) => tone.map((value) => (value * index) / 32)),
      { encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 },
    );
    const layout = open(bytes);
    expect(Math.max(...readChannel(bufferSource(bytes), layout, 31))).toBeCloseTo((0.5012 * 31) / 32, 3);
  });

  it('floats that are not numbers become 0 and are told', () => {
    const bytes = writeWav([tone.map((value, index) => (index === 100 ? Number.NaN : value))], { encoding: 'float', bitDepth: 32, sampleRateHz: 48_000 });
    expect(measureFile(bufferSource(bytes)).report.warnings.join()).toContain('not finite');
  });
});

describe('containers', () => {
  const data = samples24([tone]);
  const format = chunk('fmt ', fmt(1, 1, 48_000, 24));

  it.each(['RF64', 'BW64'])('%s takes its sizes from ds64', (container) => {
    const ds64 = new Uint8Array(28);
    new DataView(ds64.buffer).setBigUint64(8, BigInt(data.byteLength), true);
    const bytes = riff([chunk('ds64', ds64), format, chunk('data', data, 0xffffffff)], container, 0xffffffff);
    expect(open(bytes).format).toMatchObject({ container, frames: tone.length });
  });

  it('samples beyond 4 GiB are reached', () => {
    const head = riff([chunk('ds64', new Uint8Array(28)), format], 'RF64', 0xffffffff);
    const sizeBytes = 5 * 2 ** 30;
    const dataAt = head.byteLength + 8;
    new DataView(head.buffer).setBigUint64(12 + 8 + 8, BigInt(sizeBytes - dataAt), true);
    const start = join(head, chunk('data', new Uint8Array(0), 0xffffffff));
    const sparse: ByteSource = {
      sizeBytes,
      read(offset, into) {
        into.fill(0);
        if (offset < start.byteLength) into.set(start.subarray(offset, offset + into.byteLength));
        return Math.max(0, Math.min(into.byteLength, sizeBytes - offset));
      },
    };
    expect(readWavHeader(sparse).format.frames).toBe(Math.floor((sizeBytes - dataAt) / 3));
  });

  it('skips unknown, junk and odd chunks, also after the audio', () => {
    const bytes = riff([chunk('JUNK', new Uint8Array(27)), format, chunk('odd ', new Uint8Array(3)), chunk('data', data), chunk('tail', new Uint8Array(5))]);
    expect(open(bytes)).toMatchObject({ format: { frames: tone.length }, warnings: [] });
  });

  it('reads bext and iXML as a field recorder writes them', () => {
    const bytes = fieldRecordingWav({
      channels: [tone, tone],
      sampleRateHz: 48_000,
      project: 'Saltreach',
      scene: '22',
      take: '2',
      tape: 'D1',
      note: 'fur & foam <on>',
      trackNames: ['QO', 'LB'],
      startedAtMs: Date.UTC(2026, 4, 3, 9, 30, 0),
    });
    expect(open(bytes).format).toMatchObject({ scene: '22', take: '2', tape: 'D1', trackNames: ['QO', 'LB'], timeReferenceS: 34_200 });
  });

  it('takes scene and take from bext lines when there is no iXML', () => {
    const body = new Uint8Array(602);
    body.set(new TextEncoder().encode('sSCENE=7\r\nsTAKE=3\r\nsTRK1=BM\r\n'));
    expect(open(riff([chunk('bext', body), format, chunk('data', data)])).format).toMatchObject({ scene: '7', take: '3', trackNames: ['BM'] });
  });

  it('iXML that is broken or tries to explode is left out with a warning', () => {
    for (const xml of ['<BWFXML><SCENE>1', '<!DOCTYPE x [<!ENTITY a "b">]><BWFXML><SCENE>&a;</SCENE></BWFXML>']) {
      const layout = open(riff([chunk('iXML', new TextEncoder().encode(xml)), format, chunk('data', data)]));
      expect(layout.format.scene).toBeNull();
      expect(layout.warnings.join()).toContain('iXML');
    }
  });
});

describe('files that lie', () => {
  const format = chunk('fmt ', fmt(1, 1, 48_000, 24));
  const data = samples24([tone]);
  it.each([
    ['an empty file', new Uint8Array(0), 'empty'],
    ['a JPEG renamed .wav', Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, ...new Array(400).fill(7)]), 'not-wav'],
    ['a RIFF that is not WAVE', new TextEncoder().encode('RIFF\x10\0\0\0AVI LIST........'), 'not-wav'],
    ['a header cut after 30 bytes', riff([format]).subarray(0, 30), 'truncated'],
    ['no data chunk', riff([format]), 'truncated'],
    ['no fmt chunk', riff([chunk('data', data)]), 'not-wav'],
    ['data promised and none there', riff([format, chunk('data', new Uint8Array(0), 48_000)]), 'truncated'],
    ['an empty data chunk', riff([format, chunk('data', new Uint8Array(0))]), 'empty'],
    ['a compressed format', riff([chunk('fmt ', fmt(0x55, 1, 48_000, 16)), chunk('data', data)]), 'unsupported-format'],
    ['8 bit', riff([chunk('fmt ', fmt(1, 1, 48_000, 8)), chunk('data', data)]), 'unsupported-format'],
    ['0 channels', riff([chunk('fmt ', fmt(1, 0, 48_000, 24, 3)), chunk('data', data)]), 'unsupported-format'],
    ['33 channels', riff([chunk('fmt ', fmt(1, 33, 48_000, 24)), chunk('data', data)]), 'unsupported-format'],
    ['a sample rate of 0', riff([chunk('fmt ', fmt(1, 1, 0, 24)), chunk('data', data)]), 'unsupported-format'],
    ['a block size that contradicts', riff([chunk('fmt ', fmt(1, 2, 48_000, 24, 4)), chunk('data', data)]), 'unsupported-format'],
  ])('%s', (_name, bytes, code) => {
    expect(codeOf(bytes)).toBe(code);
  });

  it('a file cut in its audio is measured as far as it goes, with a warning', () => {
    const whole = riff([format, chunk('data', data)]);
    const { report } = measureFile(bufferSource(whole.subarray(0, whole.byteLength - 30_001)));
    expect(report.format.frames).toBe(tone.length - 10_001);
    expect(report.warnings.join()).toContain('truncated');
    expect(report.channels[0]?.levels.rmsDbfs).toBeCloseTo(-9, 0);
  });

  it('a recorder that lost power left the length at 0: the audio is read to the end', () => {
    const layout = open(riff([format, chunk('data', data, 0)]));
    expect(layout.format.frames).toBe(tone.length);
    expect(layout.warnings.join()).toContain('no length');
  });

  it('any bytes end in a WavError or in a report, never in anything else', () => {
    const whole = fieldRecordingWav({
      channels: [sine(300, -20, 0.02)],
      sampleRateHz: 48_000,
      project: 'P',
      scene: '1',
      take: '1',
      tape: '',
      note: '',
      trackNames: ['A'],
      startedAtMs: 0,
    });
    const damage = fc.array(fc.tuple(fc.nat(whole.byteLength - 1), fc.nat(255)), { maxLength: 24 });
    fc.assert(
      fc.property(damage, fc.nat(whole.byteLength), (edits, end) => {
        const bytes = Uint8Array.from(whole);
        for (const [at, value] of edits) bytes[at] = value;
        // Half of the damage goes where it hurts: into the headers.
        for (const [at, value] of edits.slice(0, 12)) bytes[at % 60] = value;
        survives(bytes.subarray(0, edits.length % 3 === 0 ? end : bytes.byteLength));
      }),
      { numRuns: 1500 },
    );
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => survives(join(new TextEncoder().encode('RIFF\0\0\0\0WAVE'), bytes))),
      { numRuns: 500 },
    );
  });
});

function survives(bytes: Uint8Array): void {
  try {
    const { report } = measureFile(bufferSource(bytes));
    const numbers = JSON.stringify(report);
    expect(numbers).not.toContain('NaN');
    expect(report.format.frames).toBeGreaterThan(0);
  } catch (error) {
    if (!(error instanceof WavError)) throw error;
    expect(error.message.length).toBeGreaterThan(10);
  }
}

describe('a header that promises more than there is', () => {
  const whole = riff([chunk('fmt ', fmt(1, 1, 48_000, 24)), chunk('data', new Uint8Array(96_000))]);
  it('of the whole file is told, also when the audio itself is all there', () => {
    const promising = whole.slice();
    new DataView(promising.buffer).setUint32(4, whole.byteLength + 5000, true);
    const { warnings } = readWavHeader(bufferSource(promising));
    expect(isCutShort(warnings)).toBe(true);
    expect(warnings.join()).toContain('5008 bytes more');
    expect(readWavHeader(bufferSource(whole)).warnings).toEqual([]);
  });

  it.each([0, 0xffffffff])('of the audio, a size of %i as a recorder leaves that lost its power, is told as such', (size) => {
    const open = whole.slice();
    new DataView(open.buffer).setUint32(whole.byteLength - 96_000 - 4, size, true);
    new DataView(open.buffer).setUint32(4, size, true);
    const { warnings } = readWavHeader(bufferSource(open));
    expect(warnings.join()).toContain('no length');
    expect(isCutShort(warnings)).toBe(false);
  });
});
