import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readMeterCsv } from './meterCsv.ts';

const DAY = new Date(2026, 10, 27).getTime();

describe('the CSV of a meter that was read afterwards', () => {
  it('has a channel for each column, known by its heading', () => {
    const read = readMeterCsv('Date time,LAeq dB(A),Wind m/s,Remark\n2026-11-27T09:00:00Z,41.5,2.1,\n2026-11-27T09:00:01Z,"42,5",2.2,', DAY);
    expect(read.channels.map(({ quantity, name }) => [quantity, name])).toEqual([
      ['soundLevelDba', 'LAeq dB(A)'],
      ['windMs', 'Wind m/s'],
      ['other', 'Remark'],
    ]);
    expect(read.rows).toEqual([
      { atMs: Date.UTC(2026, 10, 27, 9), values: { c1: 41.5, c2: 2.1 } },
      { atMs: Date.UTC(2026, 10, 27, 9, 0, 1), values: { c1: 42.5, c2: 2.2 } },
    ]);
  });

  it('with a time of day goes to the day that was given, and past midnight to the next', () => {
    const read = readMeterCsv('time;LAF\n23:59:59,5;40\n00:00:00;41', DAY);
    expect(read.rows.map(({ atMs }) => atMs - DAY)).toEqual([86_399_500, 86_400_000]);
  });

  it('takes seconds and milliseconds since 1970, leaves out what cannot be, and says how much', () => {
    const read = readMeterCsv('timestamp,sound\n1764234000,40\n1764234001000,41\n1764234002,900\nlater,42', DAY);
    expect(read.rows.map(({ atMs }) => atMs)).toEqual([1_764_234_000_000, 1_764_234_001_000]);
    expect(read.leftOut).toBe(3);
  });

  it.each([
    ['', 'empty'],
    ['a,b\n1,2', 'heading with time'],
    ['time\n09:00', 'nothing else'],
    ['time,la\nsoon,loud', 'No row has both'],
  ])('%s says why it is none', (text, why) => expect(readMeterCsv(text, DAY).trouble).toContain(why));

  it('whatever comes in is answered', () => {
    fc.assert(
      fc.property(
        fc.string().map((text) => `time,la\n${text}`),
        (text) => readMeterCsv(text, DAY).rows.every(({ atMs }) => Number.isFinite(atMs)),
      ),
    );
  });
});
