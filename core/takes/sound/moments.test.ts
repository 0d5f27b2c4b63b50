import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { momentsOf, sharedTimes } from './moments.ts';
import type { SoundLink } from './sameSound.ts';

/** Files as they lay on a true time, and the links that listening would find between those that overlap. */
const link = (a: string, b: string, lagS: number, confidence = 0.99): SoundLink => ({ a, b, lagS, confidence, exact: confidence > 0.9 });
const linksOf = (files: readonly { id: string; startS: number }[], pairs: readonly (readonly [string, string])[]) => {
  const start = new Map(files.map(({ id, startS }) => [id, startS]));
  return pairs.map(([a, b]) => link(a, b, (start.get(a) as number) - (start.get(b) as number)));
};
const idsOf = (moments: ReturnType<typeof momentsOf>) => moments.map(({ parts }) => parts.map(({ id }) => id).sort());

describe('files on a shared time', () => {
  it('lie as they lay, whichever way they are linked', () => {
    const file = fc.record({ startS: fc.double({ min: -500, max: 500, noNaN: true }), lengthS: fc.double({ min: 1, max: 100, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(file, { minLength: 2, maxLength: 12 }), fc.infiniteStream(fc.nat(1000)), (drawn, stream) => {
        const files = drawn.map((each, index) => ({ id: `f${index}`, ...each }));
        // A random tree: every file is linked to one before it.
        const pairs = files.slice(1).map(({ id }, index) => [id, files[(stream.next().value as number) % (index + 1)]!.id] as const);
        const times = sharedTimes(files, linksOf(files, pairs));
        expect(times).toHaveLength(1);
        const zero = times[0]!.find(({ id }) => id === 'f0')!.startS - files[0]!.startS;
        for (const { id, startS, endS } of times[0]!) {
          const own = files.find((each) => each.id === id)!;
          expect(startS - zero).toBeCloseTo(own.startS, 6);
          expect(endS - startS).toBeCloseTo(own.lengthS, 6);
        }
      }),
    );
  });

  it('of links that contradict, the surer one counts', () => {
    const files = ['a', 'b', 'c'].map((id) => ({ id, lengthS: 10 }));
    const [time] = sharedTimes(files, [link('a', 'c', 3, 0.85), link('a', 'b', 1), link('b', 'c', 1)]);
    const startOf = (id: string) => time!.find((each) => each.id === id)!.startS;
    expect(startOf('a') - startOf('b')).toBeCloseTo(1);
    expect(startOf('a') - startOf('c')).toBeCloseTo(2);
  });

  it('what nothing links lies alone', () => {
    expect(sharedTimes([{ id: 'a', lengthS: 3 }], [])).toEqual([[{ id: 'a', startS: 0, endS: 3 }]]);
  });
});

describe('moments', () => {
  const time = (spans: Record<string, [number, number]>) =>
    Object.entries(spans)
      .map(([id, [startS, endS]]) => ({ id, startS, endS }))
      .sort((a, b) => a.startS - b.startS);

  it('files that overlap are of one, those that do not are of others', () => {
    expect(idsOf(momentsOf(time({ lav: [0, 20], boom: [3, 25], next: [40, 60] })))).toEqual([['boom', 'lav'], ['next']]);
  });

  it('files that only touch are of two', () => {
    expect(idsOf(momentsOf(time({ first: [0, 20], second: [19.9, 40] })))).toEqual([['first'], ['second']]);
  });

  it('a camera that ran on is of every moment, with its part and two seconds to spare', () => {
    const moments = momentsOf(time({ camera: [-10, 300], lav1: [0, 20], boom1: [1, 22], lav2: [100, 120], boom2: [99, 121] }));
    expect(idsOf(moments)).toEqual([
      ['boom1', 'camera', 'lav1'],
      ['boom2', 'camera', 'lav2'],
    ]);
    const parts = moments.map((moment) => moment.parts.find(({ id }) => id === 'camera'));
    expect(parts).toEqual([
      { id: 'camera', startS: -2, endS: 24 },
      { id: 'camera', startS: 97, endS: 123 },
    ]);
  });

  it('parts of a camera never overlap, however closely the moments follow', () => {
    const span = fc.record({ gapS: fc.double({ min: 0, max: 6, noNaN: true }), lengthS: fc.double({ min: 3, max: 30, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(span, { minLength: 2, maxLength: 10 }), (drawn) => {
        let atS = 5;
        const lavs = drawn.map(({ gapS, lengthS }, index) => {
          const startS = atS + gapS;
          atS = startS + lengthS;
          return { id: `lav${index}`, startS, endS: atS };
        });
        const parts = momentsOf([{ id: 'camera', startS: 0, endS: atS + 10 }, ...lavs]).flatMap((moment) => moment.parts.filter(({ id }) => id === 'camera'));
        expect(parts).toHaveLength(lavs.length);
        for (const [index, part] of parts.entries()) {
          expect(part.endS).toBeGreaterThan(part.startS);
          expect(part.startS).toBeGreaterThanOrEqual((parts[index - 1]?.endS ?? 0) - 1e-9);
        }
      }),
    );
  });

  it('a long file beside one other is of one moment, as a whole', () => {
    expect(momentsOf(time({ long: [0, 300], short: [10, 30] }))).toEqual([
      {
        parts: [
          { id: 'long', startS: 0, endS: 300 },
          { id: 'short', startS: 10, endS: 30 },
        ],
      },
    ]);
  });

  it('two that ran on, a camera and a recorder, are both of every moment', () => {
    const moments = momentsOf(time({ camera: [-10, 300], recorder: [-5, 290], lav1: [0, 20], lav2: [100, 120] }));
    expect(idsOf(moments)).toEqual([
      ['camera', 'lav1', 'recorder'],
      ['camera', 'lav2', 'recorder'],
    ]);
  });
});
