/** What a sentence of NMEA 0183 says of a position. */
export type NmeaSentence =
  | {
      is: 'position';
      latitudeDeg: number;
      longitudeDeg: number;
      altitudeM: number | null;
      /** Dilution of precision; null where the sentence has none. */
      hdop: number | null;
      /** Seconds since midnight UTC; null where it is empty. */
      timeOfDayS: number | null;
      /** Midnight UTC of its day, in milliseconds since 1970; null where the sentence has no date. */
      midnightMs: number | null;
    }
  /** The receiver sees too few satellites. */
  | { is: 'no fix' }
  /** A sentence of another kind, which is none of ours. */
  | { is: 'other' }
  | { is: 'wrong'; why: string };

/** IEC 61162-1 allows 82 characters; proprietary sentences are longer. */
const LONGEST = 256;
const SENTENCE = /^[$!]([A-Z0-9]{4,10}),([^*]*)(?:\*([0-9A-Fa-f]{2}))?\s*$/;

/**
 * Reads one sentence of NMEA 0183 (IEC 61162-1): the position of GGA, RMC and GLL, of whatever talker. A sum that is there must be
 * right; a line without one is taken.
 * @example readNmea('$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47') // 48.1173, 11.5167
 */
export function readNmea(text: string): NmeaSentence {
  if (text.length > LONGEST) return { is: 'wrong', why: 'a sentence that is too long' };
  const parts = SENTENCE.exec(text.trim());
  if (!parts) return { is: 'wrong', why: 'a line that is no NMEA sentence' };
  const [, address, data, sum] = parts as unknown as [string, string, string, string | undefined];
  if (sum !== undefined && Number.parseInt(sum, 16) !== checkSum(`${address},${data}`)) return { is: 'wrong', why: 'a sentence whose check sum is wrong' };
  const fields = data.split(',');
  switch (address.slice(-3)) {
    case 'GGA':
      return fields[5] === '0' ? { is: 'no fix' } : position(fields.slice(1, 5), fields[0], null, { altitude: fields[8], hdop: fields[7] });
    case 'RMC':
      return fields[1] === 'V' ? { is: 'no fix' } : position(fields.slice(2, 6), fields[0], fields[8], {});
    case 'GLL':
      return fields[5] === 'V' ? { is: 'no fix' } : position(fields.slice(0, 4), fields[4], null, {});
    default:
      return { is: 'other' };
  }
}

/** Exclusive or of all characters between the sign and the star. */
function checkSum(text: string): number {
  let sum = 0;
  for (let index = 0; index < text.length; index++) sum ^= text.charCodeAt(index);
  return sum;
}

function position(
  place: readonly (string | undefined)[],
  time: string | undefined,
  date: string | null | undefined,
  { altitude, hdop }: { altitude?: string | undefined; hdop?: string | undefined },
): NmeaSentence {
  const [latitude, north, longitude, east] = place;
  const latitudeDeg = degrees(latitude, north, 'N', 'S', 90);
  const longitudeDeg = degrees(longitude, east, 'E', 'W', 180);
  if (latitudeDeg === null || longitudeDeg === null) return { is: 'wrong', why: 'a sentence whose position cannot be' };
  return { is: 'position', latitudeDeg, longitudeDeg, altitudeM: number(altitude), hdop: number(hdop), timeOfDayS: timeOfDay(time), midnightMs: midnight(date) };
}

/** Degrees and minutes in one figure, as ddmm.mmm. */
function degrees(text: string | undefined, side: string | undefined, plus: string, minus: string, most: number): number | null {
  if (!text || !/^\d{3,5}(\.\d+)?$/.test(text) || (side !== plus && side !== minus)) return null;
  const figure = Number(text);
  const whole = Math.floor(figure / 100);
  const minutes = figure - 100 * whole;
  const value = whole + minutes / 60;
  return minutes >= 60 || value > most ? null : side === plus ? value : -value;
}

const number = (text: string | undefined) => (text && /^-?\d+(\.\d+)?$/.test(text) ? Number(text) : null);

function timeOfDay(text: string | undefined): number | null {
  const parts = /^(\d{2})(\d{2})(\d{2}(?:\.\d+)?)$/.exec(text ?? '');
  if (!parts) return null;
  const [hours, minutes, seconds] = parts.slice(1).map(Number) as [number, number, number];
  return hours < 24 && minutes < 60 && seconds < 61 ? 3600 * hours + 60 * minutes + seconds : null;
}

/** The century follows from the two figures: receivers of before 1980 there are none. */
function midnight(text: string | null | undefined): number | null {
  const parts = /^(\d{2})(\d{2})(\d{2})$/.exec(text ?? '');
  if (!parts) return null;
  const [day, month, year] = parts.slice(1).map(Number) as [number, number, number];
  if (day < 1 || day > 31 || month < 1 || month > 12) return null;
  return Date.UTC(year < 80 ? 2000 + year : 1900 + year, month - 1, day);
}

/** A sentence with its sum, as a position source sends it. @example nmeaSentence('GPGGA,123519,...') */
export function nmeaSentence(body: string): string {
  return `$${body}*${checkSum(body).toString(16).toUpperCase().padStart(2, '0')}`;
}
