import { describe, expect, it } from 'vitest';
import { dayCalendar } from '../plan/day/dayCalendar.ts';
import { schedule } from '../plan/day/schedule.ts';
import { planOf, takesOf } from '../testing/plans.ts';
import { toCalendar } from './calendar.ts';

const START = Date.parse('2026-03-20T09:00Z');
const words = {
  trialId: 't1',
  trialName: 'Ferry',
  takeText: (index: number) => `slate ${index + 1}`,
  station: (id: string) => ({ name: id, latitudeDeg: id === 'station1' ? 54.1 : null, longitudeDeg: 9.2 }),
};

/** Lines of a calendar with its folds undone (RFC 5545, 3.1). */
const unfolded = (text: string) => text.replace(/\r\n[ \t]/g, '').split('\r\n');

describe('a day as a calendar', () => {
  const plan = planOf({ station: 2, distance: 2 });
  const takes = takesOf(plan, true);
  const withBreak = { ...plan, day: { ...plan.day, breaks: [{ startsAtMs: START + 1, lengthMin: 30 }] } };
  const day = schedule(takes, withBreak, START, { stations: [], lengthS: () => 35, runningTimeH: new Map() });
  const entries = dayCalendar(day, takes, words);

  it('has an entry for each visit of a station and each break, without gaps', () => {
    expect(entries.map((entry) => entry.title)).toEqual(['Ferry: station1', 'Break', 'Ferry: station1', 'Ferry: station2']);
    expect(entries[0]?.startsAtMs).toBe(START);
    entries.slice(1).forEach((entry, index) => expect(entry.startsAtMs).toBe(entries[index]?.endsAtMs));
    expect(entries[3]?.text).toBe('slate 3\nslate 4');
  });

  it('is a calendar file with times in UTC, and the place where it is known', () => {
    const lines = unfolded(toCalendar('Ferry', entries));
    expect(lines[0]).toBe('BEGIN:VCALENDAR');
    expect(lines.filter((line) => line === 'BEGIN:VEVENT')).toHaveLength(4);
    expect(lines).toContain('DTSTART:20260320T090000Z');
    expect(lines).toContain('UID:t1-1@marvet');
    expect(lines).toContain('GEO:54.1;9.2');
    expect(lines.filter((line) => line.startsWith('GEO'))).toHaveLength(2);
    expect(lines).toContain('DESCRIPTION:slate 3\\nslate 4');
  });

  it('with an entry that has no time is not written, and says so', () => {
    expect(() => toCalendar('Ferry', [{ ...entries[0]!, startsAtMs: Number.NaN }])).toThrow(/calendar could not be written/);
  });
});
