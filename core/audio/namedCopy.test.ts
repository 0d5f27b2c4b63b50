import { describe, expect, it } from 'vitest';
import { fieldRecordingWav } from '../simulate/fieldRecording.ts';
import { chunk, fmt, riff } from '../testing/oddWav.ts';
import { sine, whiteNoise } from '../testing/signals.ts';
import { bufferSource } from './byteSource.ts';
import { writeMarkers } from './chunks/cues.ts';
import { type CopyNames, namedCopy } from './namedCopy.ts';
import { readChannel } from './readSamples.ts';
import { readWavHeader } from './readWavHeader.ts';
import { writeWav } from './writeWav.ts';

const NAMES: CopyNames = { project: 'Jetty', scene: '7', take: '2', note: 'bare', trackNames: ['QU Quoinholt', ''] };
const whole = (bytes: Uint8Array, names = NAMES) => {
  const copy = namedCopy(bufferSource(bytes), names)!;
  const out = new Uint8Array(copy.head.length + copy.dataBytes + copy.padBytes);
  out.set(copy.head);
  out.set(bytes.subarray(copy.dataOffset, copy.dataOffset + copy.dataBytes), copy.head.length);
  return out;
};

describe('a copy with names written into it', () => {
  const channels = [sine(440, -6, 0.5), whiteNoise(-30, 0.5)];
  const startedAtMs = Date.UTC(2026, 3, 14, 9, 30, 5);
  const recorded = fieldRecordingWav({ channels, sampleRateHz: 48_000, project: '', scene: '1', take: '1', tape: 'DAY1', note: '', trackNames: ['x', 'boom'], startedAtMs });

  it('says slate, take and candidates, keeps when and on which tape it was recorded, and has the same samples', () => {
    const before = readWavHeader(bufferSource(recorded));
    const bytes = whole(recorded);
    const after = readWavHeader(bufferSource(bytes));
    expect(after.warnings).toEqual([]);
    expect(after.format).toMatchObject({
      scene: '7',
      take: '2',
      tape: 'DAY1',
      trackNames: ['QU Quoinholt', 'boom'],
      startsAt: before.format.startsAt,
      originator: before.format.originator,
    });
    expect(after.format.timeReferenceS).toBe(before.format.timeReferenceS);
    for (const channel of [0, 1]) expect(readChannel(bufferSource(bytes), after, channel)).toEqual(readChannel(bufferSource(recorded), before, channel));
  });

  it('keeps its markers and whatever else it carries, and comes out even', () => {
    const { cue, adtl } = writeMarkers([{ atS: 0.25, label: 'second' }], 48_000);
    const odd = riff([
      chunk('fmt ', fmt(1, 1, 48_000, 24)),
      chunk('LIST', adtl),
      chunk('data', new Uint8Array(3 * 24_001).fill(5)),
      chunk('cue ', cue),
      chunk('xtra', Uint8Array.of(1, 2, 3)),
      chunk('JUNK', new Uint8Array(500)),
    ]);
    const bytes = whole(odd, { ...NAMES, trackNames: ['QU'] });
    expect(bytes.length % 2).toBe(0);
    const { format, warnings } = readWavHeader(bufferSource(bytes));
    expect([format.frames, warnings]).toEqual([24_001, []]);
    expect(format.markers).toEqual([{ atS: 0.25, label: 'second' }]);
    expect(Buffer.from(bytes).includes('xtra')).toBe(true);
    expect(Buffer.from(bytes).includes('JUNK')).toBe(false);
  });

  it('is none of a file that is too large for it, or of another kind', () => {
    const plain = writeWav([sine(440, -6, 0.1)], { encoding: 'pcm', bitDepth: 24, sampleRateHz: 48_000 });
    const large = plain.slice();
    large.set(new TextEncoder().encode('RF64'));
    expect(namedCopy(bufferSource(large), NAMES)).toBeNull();
  });
});
