import { describe, expect, it } from 'vitest';
import type { AudioEvent } from '../measure/report.types.ts';
import { eventsTold, type HeardRecording } from './eventsTold.ts';

const event = (kind: AudioEvent['kind'], startS: number, severityDb: number): AudioEvent => ({ kind, startS, endS: startS + 0.1, severityDb });
const recording = (candidateId: string, takeId: string, events: AudioEvent[], lengthS = 30): HeardRecording => ({
  candidateId,
  takeId,
  recordingId: `${takeId} ${candidateId}`,
  lengthS,
  events,
});

describe('what was found in the takes of a candidate', () => {
  it('is counted by kind over the length of all of its recordings, also of those without any', () => {
    const [told] = eventsTold([recording('a', 't1', [event('handling', 1, 10), event('handling', 2, 20), event('click', 3, 9)]), recording('a', 't2', [])], ['a']);
    expect(told).toMatchObject({ recordings: 2, minutes: 1 });
    expect(told!.kinds.map(({ kind, count, perMinute }) => [kind, count, perMinute])).toEqual([
      ['handling', 2, 2],
      ['click', 1, 1],
    ]);
  });

  it('the moments to hear are the strongest of each take first, then the next strongest', () => {
    const loud = recording('a', 't1', [event('wind', 1, 30), event('wind', 2, 29), event('wind', 3, 28), event('wind', 4, 27)]);
    const [told] = eventsTold([loud, recording('a', 't2', [event('wind', 5, 6)])], ['a']);
    expect(told!.kinds[0]!.worst.map(({ takeId, event: { startS } }) => [takeId, startS])).toEqual([
      ['t1', 1],
      ['t2', 5],
      ['t1', 2],
      ['t1', 3],
    ]);
  });

  it('one candidate is not told the events of another, and one without any has no kinds', () => {
    const [a, b] = eventsTold([recording('a', 't1', [event('clip', 1, 3)]), recording('b', 't1', [])], ['a', 'b']);
    expect([a!.kinds.length, b!.kinds.length]).toEqual([1, 0]);
    expect(eventsTold([], ['c'])[0]).toMatchObject({ recordings: 0, minutes: 0, kinds: [] });
  });
});
