import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ByteSource, bufferSource } from './byteSource.ts';
import { writeBext } from './chunks/bext.ts';
import { writeIxml } from './chunks/ixml.ts';
import { closedWavHead, growingWavHead } from './growingWav.ts';
import { readChannel } from './readSamples.ts';
import { readWavHeader } from './readWavHeader.ts';
import { interleaved } from './wavParts.ts';

const FORMAT = { channels: 2, encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 } as const;
const CHUNKS = [
  { id: 'bext', body: writeBext({ description: 'sSCENE=7', originator: 'Marvet', originationDate: '2026-11-27', originationTime: '10:00:00', timeReferenceSamples: 480_000 }) },
  { id: 'iXML', body: writeIxml({ project: 'Jetty', scene: '7', take: '1', tape: '', note: '', trackNames: ['QU', 'LO'] }) },
];
const joined = (...parts: Uint8Array[]) => new Uint8Array(Buffer.concat(parts));

describe('a file that grows', () => {
  const left = Float32Array.of(0, 0.5, -0.25, 1.5, -1.5);
  const right = Float32Array.of(0.125, 0, 0, 0, 0.75);
  const samples = interleaved([left, right], FORMAT);

  it('is read as far as it goes while nobody closed it', () => {
    const { format, warnings } = readWavHeader(bufferSource(joined(growingWavHead(FORMAT, CHUNKS), samples)));
    expect(format).toMatchObject({ container: 'RIFF', channels: 2, bitDepth: 24, sampleRateHz: 48_000, frames: 5, scene: '7', timeReferenceS: 10 });
    expect(warnings).toEqual([expect.stringContaining('the header gives no length')]);
  });

  it('closed, it is like any other, and its samples are those that were recorded, held at full scale', () => {
    const head = growingWavHead(FORMAT, CHUNKS);
    const source = bufferSource(joined(closedWavHead(head, samples.byteLength, 6), samples));
    const layout = readWavHeader(source);
    expect(layout.warnings).toEqual([]);
    expect([...readChannel(source, layout, 0)]).toEqual([0, 0.5, -0.25, 8_388_607 / 8_388_608, -1]);
    expect([...readChannel(source, layout, 1)]).toEqual([0.125, 0, 0, 0, 0.75]);
  });

  it('of more than 4 GiB it is RF64 with its long sizes', () => {
    const dataBytes = 6 * 1_000_000_000;
    const head = closedWavHead(growingWavHead(FORMAT, CHUNKS), dataBytes, 6);
    // A disk that has zeros wherever nobody wrote.
    const source: ByteSource = {
      sizeBytes: head.byteLength + dataBytes,
      read(offset, into) {
        into.fill(0);
        if (offset < head.byteLength) into.set(head.subarray(offset, Math.min(head.byteLength, offset + into.byteLength)));
        return into.byteLength;
      },
    };
    const { format, warnings } = readWavHeader(source);
    expect(format).toMatchObject({ container: 'RF64', frames: 1_000_000_000 });
    expect(warnings).toEqual([]);
  });

  it('every sample within full scale comes back within half a step of 24 bit', () => {
    fc.assert(
      fc.property(fc.array(fc.float({ min: -1, max: Math.fround(0.9999998), noNaN: true }), { minLength: 1, maxLength: 50 }), (values) => {
        const bytes = interleaved([Float32Array.from(values)], FORMAT);
        const source = bufferSource(joined(closedWavHead(growingWavHead({ ...FORMAT, channels: 1 }, []), bytes.byteLength, 3), bytes));
        const read = readChannel(source, readWavHeader(source), 0);
        values.forEach((value, index) => expect(Math.abs((read[index] as number) - value)).toBeLessThanOrEqual(0.5 / 8_388_608 + 1e-12));
      }),
    );
  });
});
