import type { CalendarEntry } from '../../formats/calendar.ts';
import type { PlannedTake } from '../gather.ts';
import type { Day } from './schedule.ts';

/** Names and places for a calendar of a day. */
export interface CalendarWords {
  trialId: string;
  trialName: string;
  /** The run sheet's words for a take: its slate first. */
  takeText(takeIndex: number): string;
  station(stationId: string): { name: string; latitudeDeg: number | null; longitudeDeg: number | null };
}

/** The day as calendar entries: one for each visit of a station with its takes, and one for each break. */
export function dayCalendar(day: Day, takes: readonly PlannedTake[], words: CalendarWords): CalendarEntry[] {
  const entries: (CalendarEntry & { stationId: string | null })[] = [];
  for (const entry of day.entries) {
    const stationId = takes[entry.takeIndex]?.condition.station ?? '';
    const last = entries.at(-1);
    if (entry.kind === 'break') {
      entries.push({ ...common(entry.startsAtMs, entry.endsAtMs), title: 'Break', text: '', place: '', position: null, stationId: null });
    } else if (last && last.stationId === stationId) {
      last.endsAtMs = entry.endsAtMs;
      if (entry.kind === 'take') last.text += `\n${words.takeText(entry.takeIndex)}`;
    } else {
      const { name, latitudeDeg, longitudeDeg } = words.station(stationId);
      const position = latitudeDeg === null || longitudeDeg === null ? null : { latitudeDeg, longitudeDeg };
      const text = entry.kind === 'take' ? words.takeText(entry.takeIndex) : '';
      entries.push({ ...common(entry.startsAtMs, entry.endsAtMs), title: `${words.trialName}: ${name}`, text, place: name, position, stationId });
    }
  }
  return entries.map(({ stationId: _station, ...entry }, index) => ({ ...entry, text: entry.text.trim(), id: `${words.trialId}-${index + 1}@marvet` }));
}

const common = (startsAtMs: number, endsAtMs: number) => ({ id: '', startsAtMs, endsAtMs });
