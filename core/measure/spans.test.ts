import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filled } from '../audio/filled.ts';
import type { Span } from './report.types.ts';
import { insideSpans, joinSpans, sharedS, shiftSpans, spansAbove, withoutSpans } from './spans.ts';

/** Spans on whole tenths of a second, in order and apart, so that they can be compared cell by cell. */
const CELLS = 60;
const spans = fc.array(fc.boolean(), { minLength: CELLS, maxLength: CELLS }).map((cells) => spansOf(cells));

function spansOf(cells: readonly boolean[]): Span[] {
  const out: Span[] = [];
  cells.forEach((on, index) => {
    if (!on) return;
    const last = out.at(-1);
    if (last && Math.abs(last[1] - index / 10) < 1e-9) last[1] = (index + 1) / 10;
    else out.push([index / 10, (index + 1) / 10]);
  });
  return out;
}
const cellsOf = (list: readonly Span[]): boolean[] => Array.from({ length: CELLS }, (_, index) => list.some(([from, to]) => from <= index / 10 + 0.05 && index / 10 + 0.05 < to));

describe('stretches over a level', () => {
  it('begin where it is passed, and end where the lower one is left', () => {
    const levels = Float64Array.from([0, 3, 6, 3, 6, 1, 6, 2]);
    expect(spansAbove(levels, 5, 2, 0.5)).toEqual([
      [1, 2.5],
      [3, 4],
    ]);
    expect(spansAbove(Float64Array.from([6, 6]), 5, 2, 1)).toEqual([[0, 2]]);
    expect(spansAbove(new Float64Array(4), 5, 2, 1)).toEqual([]);
  });
});

describe('spans joined, cut and counted', () => {
  it('joined cover all that they covered, and what lay between near ones', () => {
    fc.assert(
      fc.property(spans, fc.integer({ min: 1, max: 20 }), (list, gapCells) => {
        const joined = joinSpans(list, gapCells / 10);
        const before = cellsOf(list);
        cellsOf(joined).forEach((on, index) => {
          if (before[index]) expect(on).toBe(true);
        });
        joined.slice(1).forEach((span, index) => expect(span[0] - (joined[index] as Span)[1]).toBeGreaterThanOrEqual(gapCells / 10 - 1e-6));
        expect(joinSpans(joined, gapCells / 10)).toEqual(joined);
      }),
    );
  });

  it('joining does not touch the list that it was given', () => {
    const list: Span[] = [
      [0, 1],
      [1.05, 2],
    ];
    expect(joinSpans(list, 0.1)).toEqual([[0, 2]]);
    expect(list[0]).toEqual([0, 1]);
  });

  it('less holes are what is in the one and not in the other', () => {
    fc.assert(
      fc.property(spans, spans, (list, holes) => {
        const left = cellsOf(withoutSpans(list, holes, 0.01));
        const [inList, inHoles] = [cellsOf(list), cellsOf(holes)];
        expect(left).toEqual(inList.map((on, index) => on && !inHoles[index]));
      }),
    );
  });

  it('leaves no rest that is shorter than asked', () => {
    fc.assert(
      fc.property(spans, spans, fc.integer({ min: 1, max: 10 }), (list, holes, shortestCells) => {
        for (const [from, to] of withoutSpans(list, holes, shortestCells / 10)) expect(to - from).toBeGreaterThanOrEqual(shortestCells / 10 - 1e-6);
      }),
    );
  });

  it('shared time is that of the cells in both', () => {
    fc.assert(
      fc.property(spans, fc.integer({ min: 0, max: CELLS }), fc.integer({ min: 0, max: CELLS }), (list, a, b) => {
        const [from, to] = [Math.min(a, b), Math.max(a, b)];
        const cells = cellsOf(list).slice(from, to).filter(Boolean).length;
        expect(sharedS(list, from / 10, to / 10)).toBeCloseTo(cells / 10, 6);
      }),
    );
  });

  it('moved and moved back are where they were', () => {
    fc.assert(
      fc.property(spans, fc.integer({ min: -50, max: 50 }), (list, tenths) => {
        const back = shiftSpans(shiftSpans(list, tenths / 10), -tenths / 10);
        back.forEach(([from, to], index) => {
          expect(from).toBeCloseTo((list[index] as Span)[0], 9);
          expect(to).toBeCloseTo((list[index] as Span)[1], 9);
        });
      }),
    );
  });

  it('times lie inside, or within reach, as looking through all spans says', () => {
    fc.assert(
      fc.property(spans, fc.integer({ min: 0, max: 5 }), (list, reachCells) => {
        const times = filled(CELLS, (index) => index / 10 + 0.05);
        const reachS = reachCells / 10;
        const expected = times.map((time) => (list.some(([from, to]) => from - reachS <= time && time <= to + reachS) ? 1 : 0));
        expect(insideSpans(times, list, reachS)).toEqual(expected);
      }),
    );
  });
});
