import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nmeaSentence, readNmea } from './nmea.ts';

describe('sentences of NMEA 0183', () => {
  it.each([
    ['$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47', 48.1173, 11.516667, 45_319],
    ['$GPRMC,123519,A,4807.038,N,01131.000,E,022.4,084.4,230394,003.1,W*6A', 48.1173, 11.516667, 45_319],
    ['$GPGLL,4916.45,N,12311.12,W,225444,A*31', 49.274167, -123.185333, 82_484],
    ['$GNGGA,001043.00,3351.5000,S,15112.6000,E,2,12,0.7,,M,,M,,', -33.858333, 151.21, 643],
  ])('%s', (text, latitudeDeg, longitudeDeg, timeOfDayS) => {
    const read = readNmea(text);
    expect(read.is).toBe('position');
    if (read.is !== 'position') return;
    expect(read.latitudeDeg).toBeCloseTo(latitudeDeg, 5);
    expect(read.longitudeDeg).toBeCloseTo(longitudeDeg, 5);
    expect(read.timeOfDayS).toBe(timeOfDayS);
  });

  it('tells the day, the height and how good the fix is where the sentence has them', () => {
    expect(readNmea('$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47')).toMatchObject({ altitudeM: 545.4, hdop: 0.9, midnightMs: null });
    expect(readNmea('$GPRMC,123519,A,4807.038,N,01131.000,E,022.4,084.4,230394,003.1,W*6A')).toMatchObject({ midnightMs: Date.UTC(1994, 2, 23) });
  });

  it.each([
    ['$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*48', 'wrong'],
    ['$GPGGA,123519,4867.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,', 'wrong'],
    ['$GPGGA,123519,9507.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,', 'wrong'],
    ['$GPGGA,123519,,,,,0,00,99.99,,M,,M,,', 'no fix'],
    ['$GPRMC,123519,V,,,,,,,230394,,', 'no fix'],
    ['$GPGSV,3,1,11,03,03,111,00,04,15,270,00', 'other'],
    ['hello', 'wrong'],
    ['', 'wrong'],
  ])('%s is %s', (text, is) => expect(readNmea(text).is).toBe(is));

  it('whatever comes in is answered, and a position is always one that can be', () => {
    const sentence = fc.tuple(
      fc.constantFrom('GPGGA', 'GPRMC', 'GNGLL'),
      fc.array(fc.oneof(fc.string(), fc.constantFrom('4807.038', 'N', 'E', '1', 'A', '123519')), { maxLength: 12 }),
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          sentence.map(([address, fields]) => nmeaSentence(`${address},${fields.join(',')}`)),
        ),
        (text) => {
          const read = readNmea(text);
          if (read.is !== 'position') return true;
          return Math.abs(read.latitudeDeg) <= 90 && Math.abs(read.longitudeDeg) <= 180;
        },
      ),
      { numRuns: 2000 },
    );
  });

  it('a sentence that was written is read', () => {
    expect(nmeaSentence('GPGLL,4916.45,N,12311.12,W,225444,A')).toBe('$GPGLL,4916.45,N,12311.12,W,225444,A*31');
  });
});
