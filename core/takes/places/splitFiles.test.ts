import { describe, expect, it } from 'vitest';
import { newId } from '../../domain/identity.ts';
import { PLAIN_FORMAT } from '../../testing/plainFormat.ts';
import { splitFiles } from './splitFiles.ts';

type Part = Parameters<typeof splitFiles>[0][number];
const DAY_MS = Date.UTC(2026, 4, 21);
/** A file that began so many seconds after midnight, told to the sample unless it is said otherwise. */
function part(
  name: string,
  atS: number,
  durationS: number,
  { exact = true, sizeBytes = durationS * 288_000 + 44, format = {} }: { exact?: boolean; sizeBytes?: number; format?: object } = {},
): Part {
  const startsAt = new Date(DAY_MS + Math.floor(atS) * 1000).toISOString().slice(0, 19);
  return {
    id: newId(),
    name,
    sizeBytes,
    originalSha256: null,
    modifiedAtMs: null,
    format: { ...PLAIN_FORMAT, channels: 2, trackNames: [null, null], frames: durationS * 48_000, durationS, startsAt, timeReferenceS: exact ? atS : null, ...format },
  };
}
const namesOf = (files: Part[]) => splitFiles(files).map(({ fileIds, by }) => [fileIds.map((id) => files.find((file) => file.id === id)?.name).join(' '), by]);

describe('files that go on in each other', () => {
  it('are found by their time references, however many, in any order', () => {
    const files = [part('T_0003.wav', 1000 + 2 * 7456.54, 610), part('T_0001.wav', 1000, 7456.54), part('T_0002.wav', 1000 + 7456.54, 7456.54), part('T_0009.wav', 40_000, 300)];
    expect(namesOf(files)).toEqual([['T_0001.wav T_0002.wav T_0003.wav', 'time reference']]);
  });

  it('are found over midnight', () => {
    const files = [part('T_0001.wav', 86_000, 500.25), part('T_0002.wav', 86_500.25, 90, { format: { timeReferenceS: 100.25 } })];
    expect(namesOf(files)).toHaveLength(1);
  });

  it('are none where the recorder was stopped and started again, however quickly', () => {
    expect(namesOf([part('T_0001.wav', 1000, 600), part('T_0002.wav', 1600.4, 600)])).toEqual([]);
    expect(namesOf([part('T_0001.wav', 1000, 600), part('T_0002.wav', 1599.9, 600)])).toEqual([]);
  });

  it('are none where they call themselves takes of their own, though one begins where the other ends', () => {
    const [first, second] = [
      { scene: '1', take: '1' },
      { scene: '1', take: '2' },
    ];
    expect(namesOf([part('A.wav', 1000, 600, { format: first }), part('B.wav', 1600, 600, { format: second })])).toEqual([]);
    expect(namesOf([part('A.wav', 1000, 600, { format: first }), part('B.wav', 1600, 600, { format: first })])).toHaveLength(1);
  });

  it('are none of another rate, of another day, or whose sound was taken out of something else', () => {
    const first = part('T_0001.wav', 1000, 600);
    expect(namesOf([first, part('T_0002.wav', 1600, 600, { format: { sampleRateHz: 96_000 } })])).toEqual([]);
    expect(namesOf([first, part('T_0002.wav', 1600 + 86_400, 600, { format: { timeReferenceS: 1600 } })])).toEqual([]);
    expect(namesOf([first, { ...part('T_0002.wav', 1600, 600), originalSha256: 'a'.repeat(64) }])).toEqual([]);
  });

  it('of a recorder that writes a file a track go on each in its own', () => {
    const files = [1, 2, 3].flatMap((number) =>
      [1, 2].map((track) => part(`T_000${number}_${track}.wav`, 1000 + 600.5 * number, 600.5, { format: { channels: 1, trackNames: [null] } })),
    );
    expect(namesOf(files).map(([names]) => names)).toEqual(['T_0001_1.wav T_0002_1.wav T_0003_1.wav', 'T_0001_2.wav T_0002_2.wav T_0003_2.wav']);
    // Names that tell nothing: which goes on in which is not known.
    const nameless = ['kelp.wav', 'sand.wav', 'reed.wav', 'foam.wav'].map((name, index) => part(name, 1000 + 600.5 * Math.floor(index / 2), 600.5));
    expect(namesOf(nameless)).toEqual([]);
  });

  it('are found beside others that were recorded meanwhile', () => {
    const files = [part('T_0001.wav', 1000, 600.5), part('T_0009.wav', 1000, 90.2), part('T_0002.wav', 1600.5, 60)];
    expect(namesOf(files)).toEqual([['T_0001.wav T_0002.wav', 'time reference']]);
  });

  it('told to the second only, are found where the one before is full and the numbers count on', () => {
    const coarse = { exact: false };
    const full = part('T_0001.wav', 1000, 7400, { exact: false, sizeBytes: 2 ** 31 - 4096 });
    expect(namesOf([full, part('T_0002.wav', 8400, 100, coarse)])).toEqual([['T_0001.wav T_0002.wav', 'start times']]);
    // Of a recorder that begins another file every ten minutes.
    const ofTen = [part('T_0001.wav', 1000, 600, coarse), part('T_0002.wav', 1600, 600, coarse), part('T_0003.wav', 2200, 41, coarse)];
    expect(namesOf(ofTen)).toEqual([['T_0001.wav T_0002.wav T_0003.wav', 'start times']]);
  });

  it('told to the second only, are none where it may have been started again at once', () => {
    const coarse = { exact: false };
    expect(namesOf([part('T_0001.wav', 1000, 431, coarse), part('T_0002.wav', 1431, 200, coarse)])).toEqual([]);
    expect(namesOf([part('T_0001.wav', 1000, 600, coarse), part('T_0007.wav', 1600, 600, coarse), part('T_0008.wav', 9000, 800, coarse)])).toEqual([]);
    // No clock at all: each file begins at midnight.
    expect(namesOf([part('T_0001.wav', 0, 600), part('T_0002.wav', 0, 600)])).toEqual([]);
  });
});
