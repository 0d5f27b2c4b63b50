import type { DeviceLine, HelloLine } from '@marvet/core/domain/deviceLine';
import { readNmea } from '@marvet/core/formats/nmea';

const DAY_S = 86_400;
const DAY_MS = DAY_S * 1000;

/** What a position source tells: it does not say so itself. */
export const POSITION_CHANNELS: HelloLine['channels'] = [
  { id: 'lat', quantity: 'latitudeDeg', name: 'Latitude', group: '' },
  { id: 'lon', quantity: 'longitudeDeg', name: 'Longitude', group: '' },
  { id: 'alt', quantity: 'altitudeM', name: 'Altitude', group: '' },
];

/**
 * Sentences as lines of a device. Several sentences of one second say the same place: the first that has it counts, and of a later one
 * only the altitude, where the first had none. The day is
 * that of the last sentence with a date; before there was one, the moment at which a sentence comes in is its time.
 */
export function nmeaLines(): { hello: DeviceLine; read(text: string): DeviceLine[] } {
  const hello: DeviceLine = { is: 'hello', line: { hello: 1, name: '', kind: 'position', session: '', channels: POSITION_CHANNELS } };
  let midnightMs: number | null = null;
  let lastS: number | null = null;
  let altitudeTold = false;
  return {
    hello,
    read(text) {
      const sentence = readNmea(text);
      if (sentence.is === 'wrong') return [{ is: 'wrong', why: sentence.why }];
      if (sentence.is === 'no fix') return [{ is: 'reading', line: { values: {}, health: 'sees too few satellites' } }];
      if (sentence.is === 'other') return [];
      const { timeOfDayS, latitudeDeg, longitudeDeg, altitudeM } = sentence;
      if (sentence.midnightMs !== null) midnightMs = sentence.midnightMs;
      else if (midnightMs !== null && lastS !== null && timeOfDayS !== null && lastS - timeOfDayS > DAY_S / 2) midnightMs += DAY_MS;
      const again = timeOfDayS !== null && timeOfDayS === lastS;
      if (again && (altitudeM === null || altitudeTold)) return [];
      lastS = timeOfDayS;
      altitudeTold = altitudeM !== null;
      const at = midnightMs !== null && timeOfDayS !== null ? { at: midnightMs + timeOfDayS * 1000 } : {};
      return [
        { is: 'reading', line: { ...at, values: { ...(again ? {} : { lat: latitudeDeg, lon: longitudeDeg }), ...(altitudeM === null ? {} : { alt: altitudeM }) }, health: '' } },
      ];
    },
  };
}
