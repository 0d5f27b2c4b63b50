import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newId } from '../domain/identity.ts';
import { type MarkedStretch, marksOn } from './stretchMarks.ts';

const event = (startS: number, endS: number) => ({ kind: 'click' as const, startS, endS });
const [early, late] = [
  { id: newId(), was: null, now: event(2, 2.5) },
  { id: newId(), was: event(14, 14.5), now: null },
];
const whole: MarkedStretch = { startS: null, corrections: [early, late], roomTone: [11, 12], performance: [1, 9] };
const parts = (atS: number): MarkedStretch[] => [
  { startS: null, ...marksOn([whole], null, atS) },
  { startS: atS, ...marksOn([whole], atS, null) },
];

describe('marks on a recording that is cut', () => {
  it('go with the stretch in which they lie, in its own time', () => {
    const [first, second] = parts(10);
    expect(first).toMatchObject({ corrections: [early], roomTone: null, performance: [1, 9] });
    expect(second).toMatchObject({ corrections: [{ id: late.id, was: event(4, 4.5), now: null }], roomTone: [1, 2], performance: null });
  });

  it('what lies over the cut is found anew', () => {
    expect(parts(5).map(({ performance }) => performance)).toEqual([null, null]);
  });

  it('come back as they were when the stretches are one again', () => {
    expect(marksOn(parts(10), null, null)).toEqual({ corrections: [early, late], roomTone: [11, 12], performance: [1, 9] });
  });

  it('none is lost wherever it is cut', () => {
    fc.assert(fc.property(fc.double({ min: 0.5, max: 19, noNaN: true }), (atS) => parts(atS).flatMap(({ corrections }) => corrections).length === 2));
  });

  it('of two that say what is judged neither is that of the whole', () => {
    const both = parts(10).map((part) => ({ ...part, performance: [1, 4] as [number, number] }));
    expect(marksOn(both, null, null).performance).toBeNull();
  });
});
