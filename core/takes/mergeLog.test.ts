import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clockBehindMs, lineOnClock } from '../domain/lineClock.ts';
import { applyLog, type LogLine } from '../domain/logLine.ts';
import { type Take, untouchedTake } from '../domain/take.ts';
import { mergeLog } from './mergeLog.ts';

const id = (number: number) => `00000000-0000-4000-8000-${String(number).padStart(12, '0')}`;
const TRIAL = id(1);
const take = (slate: number): Take =>
  untouchedTake({
    id: id(100 + slate),
    trialId: TRIAL,
    slate,
    position: slate,
    condition: {} as Take['condition'],
    setups: [
      { id: id(200 + slate), candidateId: id(11), levels: {} },
      { id: id(300 + slate), candidateId: id(12), levels: {} },
    ],
  });
const PLANNED = [take(1), take(2)];

/** Takes of a server to which batches come one after the other. */
function served(batches: readonly (readonly LogLine[])[]): Take[] {
  let takes = PLANNED;
  const known: LogLine[] = [];
  for (const batch of batches) {
    takes = mergeLog(takes, known, batch);
    known.push(...batch);
  }
  return takes;
}

const line = (number: number, atMs: number, slate: number, rest: object): LogLine => ({ id: id(number), takeId: id(100 + slate), atMs, ...rest }) as LogLine;

describe('a phone that was away sends its morning at noon', () => {
  const phone = [line(1, 1000, 1, { kind: 'start', controls: [], gains: {} }), line(2, 2000, 1, { kind: 'note', text: 'boat passes' }), line(3, 3000, 1, { kind: 'stop' })];
  const laptop = [
    line(4, 4000, 1, { kind: 'note', text: 'boat passes, twice' }),
    line(5, 5000, 1, { kind: 'gain', setupId: id(201), stage: 'transmitter', gainDb: -6 }),
    line(6, 6000, 1, { kind: 'flag', flag: 'traffic', setupIds: [] }),
  ];

  it('what was written later stands, whoever sent first', () => {
    const [own] = served([laptop, phone]);
    expect(own).toMatchObject({ status: 'done', startedAtMs: 1000, stoppedAtMs: 3000, note: 'boat passes, twice' });
    expect(own!.gains[id(201)]).toEqual({ transmitter: -6 });
    expect(own!.flags).toHaveLength(1);
  });

  it('a take that was done again keeps its number, and a pass that comes late gets the next one', () => {
    const early = line(21, 3500, 1, { kind: 'redo', newTakeId: id(901) });
    const late = line(22, 5500, 1, { kind: 'redo', newTakeId: id(902) });
    const onEarly = line(23, 3600, 1, { kind: 'note', text: 'phone' });
    const takes = served([
      [...laptop, late],
      [...phone, early, { ...onEarly, takeId: id(901) } as LogLine],
    ]);
    expect(takes.filter(({ slate }) => slate === 1).map(({ id: of, pass, note }) => [of, pass, note])).toEqual([
      [id(101), 1, 'boat passes, twice'],
      [id(902), 2, ''],
      [id(901), 3, 'phone'],
    ]);
  });

  it('takes that are more than the sum of their lines are not worked out anew: the late lines are added', () => {
    const imported = [{ ...take(1), note: 'from another laptop', windMs: 4 }, take(2)];
    const [own] = mergeLog(imported, [line(9, 9000, 1, { kind: 'flag', flag: 'wind', setupIds: [] })], [line(10, 8000, 1, { kind: 'flag', flag: 'traffic', setupIds: [] })]);
    expect(own).toMatchObject({ note: 'from another laptop', windMs: 4 });
    expect(own!.flags.map(({ flag }) => flag)).toEqual(['traffic']);
  });
});

describe('two devices log one trial', () => {
  const kinds = fc.oneof(
    fc.constant({ kind: 'start', controls: [], gains: {} }),
    fc.constant({ kind: 'stop' }),
    fc.constant({ kind: 'unstart' }),
    fc.constant({ kind: 'skip' }),
    fc.constant({ kind: 'unskip' }),
    fc.string({ maxLength: 5 }).map((text) => ({ kind: 'note', text })),
    fc.constantFrom('wind', 'traffic').map((flag) => ({ kind: 'flag', flag, setupIds: [] })),
    fc.constantFrom('wind', 'traffic').map((flag) => ({ kind: 'unflag', flag })),
    fc
      .record({ slate: fc.constantFrom(1, 2), gainDb: fc.integer({ min: -20, max: 20 }) })
      .map(({ slate, gainDb }) => ({ kind: 'gain', setupId: id(200 + slate), stage: 'recorder', gainDb })),
    fc.integer({ min: 0, max: 20 }).map((windMs) => ({ kind: 'conditions', windMs, noiseDba: null })),
  );
  const written = fc.array(fc.record({ device: fc.constantFrom(0, 1), slate: fc.constantFrom(1, 2), rest: kinds }), { maxLength: 40 });

  it('in whatever order their lines arrive, the takes are the sum of them in the order of writing', () => {
    fc.assert(
      fc.property(written, fc.array(fc.tuple(fc.constantFrom(0, 1), fc.integer({ min: 1, max: 6 })), { maxLength: 40 }), (all, arrivals) => {
        const lines = all.map(({ device, slate, rest }, index) => ({ device, line: line(1000 + index, 1000 * (index + 1), slate, rest) }));
        const queues = [0, 1].map((device) => lines.filter((each) => each.device === device).map((each) => each.line));
        const batches: LogLine[][] = [];
        for (const [device, count] of arrivals) {
          const batch = queues[device]!.splice(0, count);
          if (batch.length > 0) batches.push(batch);
        }
        for (const rest of queues) if (rest.length > 0) batches.push(rest);
        expect(served(batches)).toEqual(
          applyLog(
            PLANNED,
            lines.map((each) => each.line),
          ),
        );
      }),
    );
  });
});

describe('clocks', () => {
  it.each([
    [10_000, 10_900, 0, 0],
    [10_000, 205_000, 0, 195_000],
    [400_000, 10_000, 0, -390_000],
    // The way of the second message took longer: the clock is what it was.
    [20_000, 216_400, 195_000, 195_000],
    // Somebody put it right meanwhile.
    [220_000, 220_300, 195_000, 220_300 - 220_000],
  ])('sent at %i, heard at %i, known to be behind by %i: behind by %i ms', (sent, heard, known, behind) => {
    expect(clockBehindMs(sent, heard, known)).toBe(behind);
  });

  it('a line and the points of a walk move together', () => {
    const walked = line(1, 5000, 1, { kind: 'positions', points: [{ atMs: 4000, latitudeDeg: 1, longitudeDeg: 2, accuracyM: null }] });
    expect(lineOnClock(walked, 60_000)).toMatchObject({ atMs: 65_000, points: [{ atMs: 64_000 }] });
    expect(lineOnClock(walked, 0)).toBe(walked);
  });
});
