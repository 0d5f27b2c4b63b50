import { describe, expect, it } from 'vitest';
import { startOf } from './bext.ts';

const at = (originationDate: string, originationTime: string, seconds: number) => startOf({ originationDate, originationTime, timeReferenceSamples: seconds * 48_000 }, 48_000);

describe('when a file began by its recorder, EBU Tech 3285, 2.3', () => {
  it.each([
    ['to the sample, where the time reference is the time of day', '2026-04-14', '09:30:00', 34_200.25, '2026-04-14T09:30:00.250'],
    ['with the separators that the standard allows', '2026_04.14', '09-30 05', 34_205, '2026-04-14T09:30:05.000'],
    ['to the second, where the time reference counts from something else', '2026-04-14', '09:30:00', 3600, '2026-04-14T09:30:00.000'],
    ['to the second, where there is no time reference', '2026-04-14', '09:30:00', 0, '2026-04-14T09:30:00.000'],
    ['not at all, where the clock was never set', '', '', 34_200, null],
    ['not at all, where there is no such day', '2026-13-41', '09:30:00', 0, null],
    ['not at all, where there is no such time', '2026-04-14', '29:30:00', 0, null],
  ])('is known %s', (_what, date, time, seconds, start) => {
    expect(at(date, time, seconds)).toBe(start);
  });
});
