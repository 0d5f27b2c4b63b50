import { createEvents, type DateArray, type EventAttributes } from 'ics';

/** An entry of a calendar. */
export interface CalendarEntry {
  /** Stays the same when the calendar is written again, so that a calendar replaces rather than doubles it. */
  id: string;
  startsAtMs: number;
  endsAtMs: number;
  title: string;
  text: string;
  place: string;
  position: { latitudeDeg: number; longitudeDeg: number } | null;
}

const dateArray = (instantMs: number): DateArray => {
  const date = new Date(instantMs);
  return [date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate(), date.getUTCHours(), date.getUTCMinutes()];
};

/**
 * Entries as a calendar file (RFC 5545), times in UTC to the minute.
 * @throws Error when an entry cannot be written, with the reason
 */
export function toCalendar(name: string, entries: readonly CalendarEntry[]): string {
  const events = entries.map(
    (entry): EventAttributes => ({
      uid: entry.id,
      start: dateArray(entry.startsAtMs),
      startInputType: 'utc',
      startOutputType: 'utc',
      end: dateArray(entry.endsAtMs),
      endInputType: 'utc',
      endOutputType: 'utc',
      title: entry.title,
      description: entry.text,
      location: entry.place,
      calName: name,
      productId: 'marvet',
      ...(entry.position ? { geo: { lat: entry.position.latitudeDeg, lon: entry.position.longitudeDeg } } : {}),
    }),
  );
  const { error, value } = createEvents(events);
  if (error || value == null) throw new Error(`The calendar could not be written: ${error?.message ?? 'nothing came out'}`);
  return value;
}
