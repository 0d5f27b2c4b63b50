import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Span } from '../measure/report.types.ts';
import { layReel, phrasesOf, reelChapters, reelMarkers } from './reel.ts';

describe('phrases', () => {
  it('are what pauses part, with a breath before and after', () => {
    expect(
      phrasesOf(
        [
          [0.5, 2],
          [2.1, 3],
          [4, 5.5],
        ],
        6,
      ),
    ).toEqual([
      [0.4, 3.2],
      [3.9, 5.7],
    ]);
  });

  it('that are one short word go with their neighbour', () => {
    expect(
      phrasesOf(
        [
          [0.5, 0.8],
          [2, 4],
        ],
        5,
      ),
    ).toEqual([[0.4, 4.2]]);
    expect(
      phrasesOf(
        [
          [0.5, 3],
          [4, 4.3],
        ],
        5,
      ),
    ).toEqual([[0.4, 4.5]]);
    expect(phrasesOf([[0.5, 0.8]], 5)).toEqual([[0.4, 1]]);
    expect(phrasesOf([], 5)).toEqual([]);
  });

  it('lie within the clip and hold every word, whatever there is', () => {
    const word = fc.tuple(fc.double({ min: -2, max: 12, noNaN: true }), fc.double({ min: 0.01, max: 3, noNaN: true })).map(([from, length]): Span => [from, from + length]);
    fc.assert(
      fc.property(fc.array(word, { maxLength: 20 }), (words) => {
        const phrases = phrasesOf(words, 10);
        for (const [from, to] of phrases) expect([from >= 0, to <= 10, to > from]).toEqual([true, true, true]);
        for (const [from, to] of words.filter(([start, end]) => Math.min(end, 10) > Math.max(start, 0)))
          expect(phrases.some((phrase) => phrase[0] <= Math.max(0, from) && phrase[1] >= Math.min(10, to))).toBe(true);
      }),
    );
  });
});

describe('a reel', () => {
  const names = ['Osier', 'Heron & <Co>'];

  it('plays clips one after the other, with silence between', () => {
    const reel = layReel(2, 4, null, 1);
    expect(reel.parts.map(({ clip, atS, span }) => [clip, atS, ...span])).toEqual([
      [0, 0, 0, 4],
      [1, 5, 0, 4],
    ]);
    expect(reel.lengthS).toBe(9);
  });

  it('plays the same words of each, phrase by phrase', () => {
    const reel = layReel(
      2,
      4,
      [
        [0, 1],
        [2, 3.5],
      ],
      0.5,
    );
    expect(reel.parts.map(({ clip, phrase, atS }) => [clip, phrase, atS])).toEqual([
      [0, 0, 0],
      [1, 0, 1.5],
      [0, 1, 3],
      [1, 1, 5],
    ]);
    expect(reel.lengthS).toBe(6.5);
    expect(reelMarkers(reel, names)[3]).toEqual({ atS: 5, label: 'Heron & <Co>, phrase 2' });
  });

  it('has chapters that any player reads', () => {
    expect(reelChapters(layReel(2, 3725.0004, null, 0.25), names)).toBe(
      'WEBVTT\n\n00:00:00.000 --> 01:02:05.000\nOsier\n\n01:02:05.250 --> 02:04:10.251\nHeron &amp; &lt;Co&gt;\n',
    );
  });
});
