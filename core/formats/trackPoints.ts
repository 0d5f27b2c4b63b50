import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import Papa from 'papaparse';
import { z } from 'zod';
import { type TrackPoint, trackPointSchema } from '../domain/walk.ts';
import { toCsv } from './csv.ts';
import { readNmea } from './nmea.ts';

/** The points of a file, or why there are none. */
export interface ReadTrack {
  points: TrackPoint[];
  /** Rows or points that have no time or no place, and are left out. */
  leftOut: number;
  trouble: string | null;
}

/** A track with more points than a day of seconds is none of a walk. */
const MOST_POINTS = 100_000;
const SECONDS_A_DAY = 86_400;
const DAY_MS = 86_400_000;

const list = <Schema extends z.ZodType>(schema: Schema) => z.union([z.array(schema), schema.transform((one) => [one])]).optional();
const gpxSchema = z.object({
  gpx: z.object({
    trk: list(z.object({ trkseg: list(z.object({ trkpt: list(z.record(z.string(), z.unknown())) })) })),
  }),
});

/** Points as a track of GPX 1.1. */
export function toGpx(name: string, points: readonly TrackPoint[]): string {
  const trkpt = points.map(({ latitudeDeg, longitudeDeg, atMs }) => ({ '@lat': latitudeDeg.toFixed(7), '@lon': longitudeDeg.toFixed(7), time: new Date(atMs).toISOString() }));
  const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true });
  const root = { '@version': '1.1', '@creator': 'Marvet', '@xmlns': 'http://www.topografix.com/GPX/1/1', trk: { name, trkseg: { trkpt } } };
  return `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build({ gpx: root })}`;
}

export const TRACK_COLUMNS = ['time', 'latitude', 'longitude', 'accuracy_m', 'distance_m'] as const;

/** Points as CSV, with the distance from the receiver where it is known. */
export function trackToCsv(points: readonly (TrackPoint & { distanceM: number | null })[]): string {
  return toCsv(
    TRACK_COLUMNS,
    points.map((point) => ({
      time: new Date(point.atMs).toISOString(),
      latitude: Number(point.latitudeDeg.toFixed(7)),
      longitude: Number(point.longitudeDeg.toFixed(7)),
      accuracy_m: point.accuracyM,
      distance_m: point.distanceM === null ? null : Number(point.distanceM.toFixed(2)),
    })),
  );
}

/** Reads the points of a GPX file, of a CSV with time, latitude and longitude, or of a log of NMEA sentences; which it is shows by its beginning. */
export function readTrack(text: string): ReadTrack {
  const trimmed = text.replace(/^\uFEFF/, '').trim();
  if (trimmed === '') return nothing('The file is empty');
  if (trimmed.startsWith('<')) return readGpx(trimmed);
  return /^[$!]/.test(trimmed) ? readNmeaLog(trimmed) : readTrackCsv(trimmed);
}

const nothing = (trouble: string): ReadTrack => ({ points: [], leftOut: 0, trouble });

function told(found: readonly (TrackPoint | null)[], what: string): ReadTrack {
  const points = found.flatMap((point) => (point ? [point] : []));
  if (points.length > MOST_POINTS) return nothing(`The file has ${points.length} points; a track has at most ${MOST_POINTS}`);
  const leftOut = found.length - points.length;
  return { points: points.sort((a, b) => a.atMs - b.atMs), leftOut, trouble: points.length === 0 ? `No ${what} in it has a time and a place` : null };
}

function pointOf(latitudeDeg: number, longitudeDeg: number, atMs: number, accuracyM: number | null = null): TrackPoint | null {
  const result = trackPointSchema.safeParse({ latitudeDeg, longitudeDeg, atMs: Math.round(atMs), accuracyM });
  return result.success ? result.data : null;
}

function readGpx(text: string): ReadTrack {
  // What a file brings as its own entities is not taken up.
  if (/<!DOCTYPE/i.test(text) || XMLValidator.validate(text) !== true) return nothing('The file is no well-formed GPX');
  const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '@', parseTagValue: false, processEntities: false });
  const read = gpxSchema.safeParse(parser.parse(text));
  if (!read.success) return nothing('The file is XML, but no GPX');
  const raw = (read.data.gpx.trk ?? []).flatMap((track) => (track.trkseg ?? []).flatMap((segment) => segment.trkpt ?? []));
  return told(
    raw.map((point) => pointOf(numberOf(point['@lat']), numberOf(point['@lon']), Date.parse(String(point.time ?? '')))),
    'point of a track',
  );
}

/** Text that is no number is none, and neither is nothing. */
const numberOf = (value: unknown) => (typeof value === 'string' && value.trim() !== '' ? Number(value) : typeof value === 'number' ? value : Number.NaN);

function readTrackCsv(text: string): ReadTrack {
  const { data } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true, transformHeader: (name) => name.trim().toLowerCase() });
  const columns = Object.keys(data[0] ?? {});
  const named = (...starts: string[]) => columns.find((column) => starts.some((start) => column.startsWith(start)));
  const [time, latitude, longitude, accuracy] = [named('time', 'date'), named('lat'), named('lon', 'lng'), named('acc')];
  if (!time || !latitude || !longitude) return nothing('A track as CSV has the columns time, latitude and longitude');
  return told(
    data.map((row) => pointOf(numberOf(row[latitude]), numberOf(row[longitude]), instantOf(row[time] ?? ''), accuracy && row[accuracy] ? numberOf(row[accuracy]) : null)),
    'row',
  );
}

/** A time as a date and time, or as seconds or milliseconds since 1970. */
function instantOf(text: string): number {
  const figure = Number(text);
  if (text.trim() !== '' && Number.isFinite(figure)) return figure > 1e11 ? figure : figure * 1000;
  return Date.parse(text);
}

/** The day is what the sentences with a date say; a time that falls back by half a day is past midnight. */
function readNmeaLog(text: string): ReadTrack {
  const sentences = text.split(/\r?\n/).flatMap((line) => {
    const read = readNmea(line);
    return read.is === 'position' && read.timeOfDayS !== null ? [read] : [];
  });
  const dated = sentences.find(({ midnightMs }) => midnightMs !== null);
  if (!dated) return nothing('The sentences have no date; a log needs RMC sentences to say on which day it was');
  let midnightMs = dated.midnightMs as number;
  let before = -1;
  const points = new Map<number, TrackPoint | null>();
  for (const sentence of sentences) {
    const timeS = sentence.timeOfDayS as number;
    if (sentence.midnightMs !== null) midnightMs = sentence.midnightMs;
    else if (before - timeS > SECONDS_A_DAY / 2) midnightMs += DAY_MS;
    before = timeS;
    const atMs = midnightMs + timeS * 1000;
    // Several sentences of one second say the same place.
    points.set(atMs, pointOf(sentence.latitudeDeg, sentence.longitudeDeg, atMs));
  }
  return told([...points.values()], 'sentence');
}
