import { describe, expect, it } from 'vitest';
import { eventsCsv } from './eventsCsv.ts';

const place = { fileStartS: 0, take: '4/2', candidate: 'Quoin', file: 'S004.wav', channels: '1' };

describe('events as CSV', () => {
  it('tells who says so: the detector, a hand, or a hand that says it is none', () => {
    const text = eventsCsv([
      {
        ...place,
        events: [
          { kind: 'wind', startS: 1.23456, endS: 2, severityDb: 6.04 },
          { kind: 'dropout', startS: 5, endS: 5.1, severityDb: 40, correctionId: 'c' },
        ],
        corrections: [
          { id: 'c', was: null, now: { kind: 'dropout', startS: 5, endS: 5.1 } },
          { id: 'd', was: { kind: 'click', startS: 3, endS: 3.001 }, now: null },
        ],
      },
    ]);
    expect(text.trim().split('\r\n')).toEqual([
      'Take,Candidate,File,Channel,Event,"From, s","To, s","Severity, dB",By',
      '4/2,Quoin,S004.wav,1,wind,1.235,2,6,found',
      '4/2,Quoin,S004.wav,1,click,3,3.001,,hand: not one',
      '4/2,Quoin,S004.wav,1,break-up,5,5.1,40,hand',
    ]);
  });

  it('of nothing is a header', () => {
    expect(
      eventsCsv([{ ...place, events: [], corrections: [] }])
        .trim()
        .split('\r\n'),
    ).toHaveLength(1);
  });
});
