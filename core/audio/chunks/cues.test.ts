import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chunk, fmt, join, riff } from '../../testing/oddWav.ts';
import { bufferSource } from '../byteSource.ts';
import { readWavHeader } from '../readWavHeader.ts';
import { readMarkers, writeMarkers } from './cues.ts';

const RATE_HZ = 48_000;
const u32 = (value: number) => {
  const bytes = new Uint8Array(4);
  new DataView(bytes.buffer).setUint32(0, value, true);
  return bytes;
};
const ascii = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
/** A point as the standard has it, byte by byte: id, position, chunk, chunk start, block start, sample offset. */
const point = (id: number, frame: number) => join(u32(id), u32(frame), ascii('data'), u32(0), u32(0), u32(frame));
const label = (id: number, text: string) => chunk('labl', join(u32(id), ascii(`${text}\0`)));
const sound = chunk('data', new Uint8Array(3 * RATE_HZ * 2));
const markersOf = (...chunks: Uint8Array[]) => readWavHeader(bufferSource(riff([chunk('fmt ', fmt(1, 1, RATE_HZ, 24)), ...chunks]))).format.markers;

describe('markers of a file', () => {
  it('are read with their labels, in the order of their time, wherever their chunks stand', () => {
    const cue = chunk('cue ', join(u32(2), point(7, 72_000), point(3, 12_000)));
    const list = chunk('LIST', join(ascii('adtl'), label(3, 'first'), chunk('note', join(u32(3), ascii('no label\0'))), label(7, 'Now the second')));
    const info = chunk('LIST', join(ascii('INFO'), chunk('ICMT', ascii('a comment\0'))));
    const wanted = [
      { atS: 0.25, label: 'first' },
      { atS: 1.5, label: 'Now the second' },
    ];
    expect(markersOf(info, cue, list, sound)).toEqual(wanted);
    expect(markersOf(sound, list, cue, info)).toEqual(wanted);
  });

  it('are read without labels', () => {
    expect(markersOf(chunk('cue ', join(u32(1), point(1, 48_000))), sound)).toEqual([{ atS: 1, label: '' }]);
  });

  it('that lie behind the last sample, or are counted but not there, are left out', () => {
    expect(markersOf(chunk('cue ', join(u32(900), point(1, 48_000), point(2, 9_000_000))), sound)).toEqual([{ atS: 1, label: '' }]);
    expect(markersOf(chunk('cue ', ascii('x')), sound)).toEqual([]);
  });

  it('have no label where the list lies about its lengths', () => {
    const list = chunk('LIST', join(ascii('adtl'), ascii('labl'), u32(4_000_000_000), u32(1), ascii('far')));
    expect(markersOf(chunk('cue ', join(u32(1), point(1, 48_000))), list, sound)).toEqual([{ atS: 1, label: '' }]);
  });

  it('of any bytes are markers within the file, or none', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), fc.uint8Array({ maxLength: 400 }), fc.integer({ min: 1, max: 1e6 }), (cue, adtl, frames) => {
        const found = readMarkers(cue, adtl, { sampleRateHz: RATE_HZ, frames });
        expect(found.every(({ atS }, index) => atS * RATE_HZ < frames && (index === 0 || atS > found[index - 1]!.atS))).toBe(true);
      }),
    );
  });

  it('are written as they are read', () => {
    const markers = [
      { atS: 0.5, label: 'odd' },
      { atS: 1.25, label: 'even' },
      { atS: 1.75, label: '' },
    ];
    const { cue, adtl } = writeMarkers(markers, RATE_HZ);
    expect(markersOf(chunk('cue ', cue), chunk('LIST', adtl), sound)).toEqual(markers);
  });
});
