import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { partsAround } from './partsAround.ts';

describe('parts of a long file', () => {
  it('have the margin where there is room for it, else half of the pause, and end with the file', () => {
    const stretches = [
      { startS: 3, endS: 20 },
      { startS: 22, endS: 30 },
      { startS: 60, endS: 98 },
    ];
    expect(partsAround(stretches, { startS: 0, endS: 100 }, 5)).toEqual([
      { startS: 0, endS: 21 },
      { startS: 21, endS: 35 },
      { startS: 55, endS: 100 },
    ]);
  });

  it('hold what they are about, never overlap, and keep to the file', () => {
    const drawn = fc.array(fc.record({ gapS: fc.double({ min: 0, max: 20, noNaN: true }), lengthS: fc.double({ min: 0.5, max: 40, noNaN: true }) }), { maxLength: 12 });
    fc.assert(
      fc.property(drawn, fc.double({ min: 0, max: 8, noNaN: true }), (rows, marginS) => {
        let atS = 0;
        const stretches = rows.map(({ gapS, lengthS }) => {
          const startS = atS + gapS;
          atS = startS + lengthS;
          return { startS, endS: atS };
        });
        const parts = partsAround(stretches, { startS: 0, endS: atS }, marginS);
        for (const [index, part] of parts.entries()) {
          const { startS, endS } = stretches[index]!;
          expect(part.startS).toBeLessThanOrEqual(startS);
          expect(part.endS).toBeGreaterThanOrEqual(endS - 1e-9);
          expect(part.startS).toBeGreaterThanOrEqual(Math.max(0, (parts[index - 1]?.endS ?? 0) - 1e-9));
        }
      }),
    );
  });
});
