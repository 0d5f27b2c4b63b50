import { nmeaSentence } from '@marvet/core/formats/nmea';
import { describe, expect, it } from 'vitest';
import { nmeaLines } from './nmeaLines.ts';

const gga = (time: string, north = '5206.000') => nmeaSentence(`GPGGA,${time},${north},N,00124.000,E,1,09,0.9,3.0,M,45.0,M,,`);
const rmc = (time: string, date: string, north = '5206.000') => nmeaSentence(`GPRMC,${time},A,${north},N,00124.000,E,2.5,020.0,${date},,,A`);
const read = (...sentences: string[]) => {
  const lines = nmeaLines();
  return sentences.flatMap((sentence) => lines.read(sentence)).map(({ is, ...rest }) => ('line' in rest ? rest.line : is));
};

describe('sentences of a position source as lines of a device', () => {
  it('of one second are one place, and the altitude that the second of them has', () => {
    expect(read(rmc('090000', '271126'), gga('090000'), gga('090000'))).toEqual([
      { at: Date.UTC(2026, 10, 27, 9), values: { lat: 52.1, lon: 1.4 }, health: '' },
      { at: Date.UTC(2026, 10, 27, 9), values: { alt: 3 }, health: '' },
    ]);
  });

  it('without a day have no time of their own, and past midnight the day goes on', () => {
    const [first, second, , third] = read(gga('235958'), rmc('235959', '271126'), gga('235959'), gga('000001')) as { at?: number }[];
    expect(first).not.toHaveProperty('at');
    expect(second?.at).toBe(Date.UTC(2026, 10, 27, 23, 59, 59));
    expect(third?.at).toBe(Date.UTC(2026, 10, 28, 0, 0, 1));
  });

  it('too few satellites are told as its health, what is wrong as a trouble, and other kinds not at all', () => {
    expect(read('$GPGGA,090000,,,,,0,00,99.99,,M,,M,,', 'noise', '$GPGSV,3,1,11')).toEqual(
      [{ values: {}, health: 'sees too few satellites' }, undefined].map((line) => line ?? expect.anything()),
    );
  });
});
