import type { Correction } from '../domain/correction.ts';
import { toCsv } from '../formats/csv.ts';
import { EVENT_NAMES } from '../measure/eventNames.ts';
import type { AudioEvent } from '../measure/report.types.ts';

/** A recording, and what happened on it. */
export interface RecordingEvents {
  take: string | null;
  candidate: string | null;
  file: string;
  /** Counted from 1, as people do. */
  channels: string;
  events: readonly AudioEvent[];
  corrections: readonly Correction[];
  /** Where in its file the recording begins: times are told in those of the file. */
  fileStartS: number;
}

const COLUMNS = ['Take', 'Candidate', 'File', 'Channel', 'Event', 'From, s', 'To, s', 'Severity, dB', 'By'] as const;

/**
 * Every event as CSV, in order of time: those that were found, those that somebody marked, and those that
 * somebody said are none, which no figure counts.
 */
export function eventsCsv(recordings: readonly RecordingEvents[]): string {
  const rows = recordings.flatMap(({ take, candidate, file, channels, events, corrections, fileStartS }) => {
    const place = { Take: take, Candidate: candidate, File: file, Channel: channels };
    const rowOf = (event: Pick<AudioEvent, 'kind' | 'startS' | 'endS'>, severityDb: number | null, by: string) => ({
      ...place,
      Event: EVENT_NAMES[event.kind],
      'From, s': rounded(fileStartS + event.startS, 3),
      'To, s': rounded(fileStartS + event.endS, 3),
      'Severity, dB': severityDb === null ? null : rounded(severityDb, 1),
      By: by,
    });
    const told = events.map((event) => rowOf(event, event.severityDb, event.correctionId ? 'hand' : 'found'));
    const none = corrections.flatMap(({ was, now }) => (was && !now ? [rowOf(was, null, 'hand: not one')] : []));
    return [...told, ...none].sort((a, b) => a['From, s'] - b['From, s']);
  });
  return toCsv(COLUMNS, rows);
}

const rounded = (value: number, digits: number) => Number(value.toFixed(digits));
