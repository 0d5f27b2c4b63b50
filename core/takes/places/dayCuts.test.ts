import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayCuts } from './dayCuts.ts';

const NOON_MS = Date.UTC(2026, 3, 14, 12);
const take = (id: string, fromS: number, toS: number | null) => ({ id, startedAtMs: NOON_MS + fromS * 1000, stoppedAtMs: toS === null ? null : NOON_MS + toS * 1000 });
const file = (fromS: number, durationS: number) => ({ startsAtMs: NOON_MS + fromS * 1000, durationS });

describe('a file that ran on all day', () => {
  it('is cut about each take, with room for a slate before and for room tone after', () => {
    expect(dayCuts(file(-100, 1000), [take('a', 0, 30), take('b', 200, 260)])).toEqual([
      { takeId: 'a', startS: 95, endS: 135, logStartS: 100, cutOff: null },
      { takeId: 'b', startS: 295, endS: 365, logStartS: 300, cutOff: null },
    ]);
  });

  it('between two takes that follow at once, in the middle of the pause', () => {
    const [a, b] = dayCuts(file(0, 100), [take('a', 10, 20), take('b', 24, 40)]);
    expect([a?.endS, b?.startS]).toEqual([22, 22]);
  });

  it('split by its size in the middle of a take, it holds what it has of it', () => {
    expect(dayCuts(file(0, 100), [take('a', 90, 130)])).toEqual([{ takeId: 'a', startS: 85, endS: 100, logStartS: 90, cutOff: 'goes on after' }]);
    expect(dayCuts(file(100, 100), [take('a', 90, 130)])).toEqual([{ takeId: 'a', startS: 0, endS: 35, logStartS: -10, cutOff: 'begins before' }]);
  });

  it('of what it missed it holds nothing, nor of a take that it only touched', () => {
    expect(dayCuts(file(0, 100), [take('a', -60, -10), take('b', 99.5, 130)])).toEqual([]);
  });

  it('a take that was never stopped ends where the next begins', () => {
    const [a, b] = dayCuts(file(0, 900), [take('a', 10, null), take('b', 60, 90)]);
    expect([a?.endS, b?.startS]).toEqual([60, 60]);
  });

  it('whatever was logged, no two parts overlap, and all lie in the file', () => {
    const seconds = fc.double({ min: 0, max: 2000, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(seconds, fc.double({ min: 1, max: 90, noNaN: true })), { maxLength: 12 }), seconds, (logged, durationS) => {
        let atS = 0;
        const takes = logged.map(([pauseS, lengthS], index) => {
          const fromS = atS + pauseS / 10;
          atS = fromS + lengthS;
          return take(String(index), fromS, atS);
        });
        const cuts = dayCuts(file(50, durationS), takes);
        cuts.forEach(({ startS, endS }, index) => {
          expect(startS).toBeGreaterThanOrEqual(0);
          expect(endS).toBeLessThanOrEqual(durationS);
          expect(endS).toBeGreaterThan(startS);
          expect(startS).toBeGreaterThanOrEqual(cuts[index - 1]?.endS ?? 0);
        });
      }),
    );
  });
});
