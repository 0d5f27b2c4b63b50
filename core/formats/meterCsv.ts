import Papa from 'papaparse';
import { type DeviceChannel, MOST_CHANNELS } from '../domain/device.ts';
import { impossible, type Quantity } from '../domain/quantity.ts';
import { readNumber } from '../domain/readNumber.ts';

/** What a meter kept, as its file has it. */
export interface MeterFile {
  channels: DeviceChannel[];
  rows: { atMs: number; values: Record<string, number> }[];
  /** Rows without a time or a value, and values that cannot be. */
  leftOut: number;
  trouble: string | null;
}

/** Headings by which a column is known, most telling first. */
const KNOWN: [RegExp, Quantity][] = [
  [/\b(la|laf|las|laeq|db ?\(?a\)?|dba|sound|spl|noise)\b/i, 'soundLevelDba'],
  [/\b(wind|gust|m\/s)\b/i, 'windMs'],
  [/\b(rssi|rf|radio|dbm)\b/i, 'radioLevelDbm'],
  [/\b(audio|dbfs)\b/i, 'audioLevelDbfs'],
  [/\b(temp|temperature|°c)\b/i, 'temperatureC'],
  [/\b(battery|bat)\b/i, 'batteryPercent'],
  [/\b(lat|latitude)\b/i, 'latitudeDeg'],
  [/\b(lon|lng|longitude)\b/i, 'longitudeDeg'],
];
const MOST_ROWS = 200_000;
const DAY_MS = 86_400_000;

const nothing = (trouble: string): MeterFile => ({ channels: [], rows: [], leftOut: 0, trouble });

/**
 * Reads the CSV of a meter that was read afterwards: a column of times, and columns of values, each of which becomes a channel; what it
 * is follows from its heading. Times are dates with a time, seconds or milliseconds since 1970, or, with the day given, a time of day; a
 * time without a zone is that of this computer.
 * @param dayMs the midnight, local time, of the first row, where rows have only a time of day
 */
export function readMeterCsv(text: string, dayMs: number): MeterFile {
  const trimmed = text.replace(/^\uFEFF/, '').trim();
  if (trimmed === '') return nothing('The file is empty');
  const { data, meta } = Papa.parse<Record<string, string>>(trimmed, { header: true, skipEmptyLines: true });
  const columns = meta.fields ?? [];
  const time = columns.find((column) => /time|date|clock/i.test(column));
  if (!time) return nothing('No column has a heading with time or date, so that nothing can be laid on takes');
  const others = columns.filter((column) => column !== time && column.trim() !== '').slice(0, MOST_CHANNELS);
  if (others.length === 0) return nothing('The file has a time and nothing else');
  if (data.length > MOST_ROWS) return nothing(`The file has ${data.length} rows; at most ${MOST_ROWS} are taken`);
  const channels = others.map(
    (name, index): DeviceChannel => ({ id: `c${index + 1}`, quantity: KNOWN.find(([heading]) => heading.test(name))?.[1] ?? 'other', name: name.trim().slice(0, 60), group: '' }),
  );
  let leftOut = 0;
  let dayStartMs = dayMs;
  let before: number | null = null;
  const rows: MeterFile['rows'] = [];
  for (const row of data) {
    const clock = instant(row[time] ?? '', dayStartMs);
    if (clock.ofDay && before !== null && clock.atMs < before - DAY_MS / 2) {
      // Past midnight the clock begins anew.
      dayStartMs += DAY_MS;
      clock.atMs += DAY_MS;
    }
    const values: Record<string, number> = {};
    for (const [index, { id, quantity }] of channels.entries()) {
      const cell = row[others[index] as string] ?? '';
      const read = readNumber(cell);
      const value = read.kind === 'number' ? read.value : read.kind === 'either' ? read.readings[1] : null;
      if (value !== null && impossible(quantity, value) === null) values[id] = value;
      else if (cell.trim() !== '') leftOut++;
    }
    if (!Number.isFinite(clock.atMs) || clock.atMs < 0 || Object.keys(values).length === 0) {
      leftOut++;
      continue;
    }
    before = clock.atMs;
    rows.push({ atMs: Math.round(clock.atMs), values });
  }
  if (rows.length === 0) return nothing('No row has both a time and a value');
  return { channels, rows, leftOut, trouble: null };
}

function instant(text: string, dayMs: number): { atMs: number; ofDay: boolean } {
  const trimmed = text.trim();
  const clock = /^(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?$/.exec(trimmed);
  if (clock) {
    const [hours, minutes, seconds] = [Number(clock[1]), Number(clock[2]), Number((clock[3] ?? '0').replace(',', '.'))];
    return { atMs: hours < 24 && minutes < 60 && seconds < 61 ? dayMs + ((hours * 60 + minutes) * 60 + seconds) * 1000 : Number.NaN, ofDay: true };
  }
  const figure = Number(trimmed);
  if (trimmed !== '' && Number.isFinite(figure)) return { atMs: figure > 1e11 ? figure : figure > 1e8 ? figure * 1000 : Number.NaN, ofDay: false };
  return { atMs: Date.parse(trimmed), ofDay: false };
}
