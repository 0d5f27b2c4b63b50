import { deviceLine, readDeviceLine } from '@marvet/core/domain/deviceLine';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { DeviceClock } from './deviceClock.ts';
import { Intake } from './intake.ts';
import { LineReader } from './lineReader.ts';

const HELLO = {
  hello: 1,
  name: 'Rx',
  kind: 'receiver',
  session: 'a',
  channels: [
    { id: 'a', quantity: 'radioLevelDbm', group: '1' },
    { id: 'm', quantity: 'muted', group: '1' },
  ],
};

let nowMs: number;
let intake: Intake;
const say = (line: object) => intake.take(deviceLine(line));
const secondsOf = (): [number, Record<string, number[]>][] => [...(intake.unwritten()?.seconds ?? [])];
const troubles = () => intake.state.troubles.map(({ text }) => text);

beforeEach(() => {
  nowMs = 1_000_000;
  intake = new Intake('device', null, () => nowMs);
  say(HELLO);
});

describe('what a device tells', () => {
  it('is kept second by second with its least, sum, most, count and last', () => {
    for (const value of [-60, -80, -70]) say({ values: { a: value } });
    nowMs += 1000;
    say({ values: { a: -50 } });
    expect(secondsOf()).toEqual([
      [1000, { a: [-80, -210, -60, 3, -70] }],
      [1001, { a: [-50, -50, -50, 1, -50] }],
    ]);
    expect(intake.state).toMatchObject({ link: 'live', values: { a: -50 } });
  });

  it('that cannot be is told once with its count, and kept nowhere', () => {
    for (let time = 0; time < 3; time++) say({ values: { a: 900, b: 1, m: 0 } });
    expect(intake.state.troubles.map(({ text, count }) => [text, count])).toEqual(
      expect.arrayContaining([
        ['told radio level of 900 dBm', 3],
        ['told something of a channel that it never named', 3],
      ]),
    );
    expect(secondsOf()).toEqual([[1000, { m: [0, 0, 0, 3, 0] }]]);
  });

  it('counts once though it is sent again, and is acknowledged only when it is written', () => {
    say({ n: 1, values: { a: -60 } });
    say({ n: 2, values: { a: -62 } });
    const out = intake.unwritten();
    expect(intake.acknowledged).toBeNull();
    if (out) intake.written(out);
    expect(intake.acknowledged).toBe(2);
    say(HELLO);
    say({ n: 1, values: { a: -60 } });
    say({ n: 2, values: { a: -62 } });
    say({ n: 3, values: { a: -64 } });
    expect(secondsOf()).toEqual([[1000, { a: [-64, -64, -64, 1, -64] }]]);
  });

  it('counting from one again without another session is told, and sending again what was taken is not', () => {
    say({ n: 1, at: 1000, values: { a: -60 } });
    say({ n: 2, at: 2000, values: { a: -61 } });
    say({ ...HELLO, now: 2500 });
    say({ n: 1, at: 1000, values: { a: -60 } });
    expect(troubles()).toEqual([]);
    nowMs += 60_000;
    say({ n: 1, at: 62_000, values: { a: -70 } });
    expect(troubles()[0]).toContain('without another session');
  });

  it('is acknowledged anew to whoever connects again', () => {
    say({ n: 1, values: { a: -60 } });
    const out = intake.unwritten();
    if (out) intake.written(out);
    intake.toldN = intake.acknowledged;
    say(HELLO);
    expect([intake.toldN, intake.acknowledged]).toEqual([null, 1]);
  });

  it('a session of its own counts from one again', () => {
    say({ n: 7, values: { a: -60 } });
    say({ ...HELLO, session: 'b' });
    say({ n: 1, values: { a: -61 } });
    expect(secondsOf()[0]?.[1]).toEqual({ a: [-61, -121, -60, 2, -61] });
  });

  it('what could not be written is kept, and goes with the next', () => {
    say({ n: 1, values: { a: -60 } });
    const out = intake.unwritten();
    say({ n: 2, values: { a: -70 } });
    if (out) intake.notWritten(out, 'the disk is full');
    expect(intake.acknowledged).toBeNull();
    expect(troubles()[0]).toContain('the disk is full');
    expect(secondsOf()).toEqual([[1000, { a: [-70, -130, -60, 2, -70] }]]);
  });

  it('faster than anything needs is slowed down, not lost', () => {
    let waits = 0;
    for (let line = 0; line < 13_000; line++) waits += say({ values: { a: -60 } }) > 0 ? 1 : 0;
    expect(waits).toBeGreaterThan(900);
    expect(troubles()[0]).toContain('slowed down');
    expect(secondsOf()[0]?.[1].a?.[3]).toBe(13_000);
  });

  it('whatever comes in, the device is told and everything else stands', () => {
    const anything = fc.oneof(
      fc.string(),
      fc.json(),
      fc.record({ values: fc.dictionary(fc.string(), fc.double()), n: fc.oneof(fc.integer(), fc.string()), at: fc.anything() }).map((line) => JSON.stringify(line)),
    );
    fc.assert(
      fc.property(fc.array(anything, { maxLength: 20 }), (lines) => {
        for (const line of lines) intake.take(readDeviceLine(line ?? ''));
        return intake.state.troubles.length <= 12 && Object.values(intake.state.values).every(Number.isFinite);
      }),
      { numRuns: 500 },
    );
  });
});

describe('the clock of a device', () => {
  it('may be wrong by hours: only how it runs on counts', () => {
    const clock = new DeviceClock();
    clock.hello(undefined, 10_000_000);
    expect(clock.at(5_000, 10_000_050).atMs).toBe(10_000_050);
    // The first line was late by 50 ms; a quicker one sets it right.
    expect(clock.at(6_000, 10_001_000)).toEqual({ atMs: 10_001_000, jumpedMs: 0 });
    expect(clock.at(7_000, 10_002_400).atMs).toBe(10_002_000);
  });

  it('what was kept while nobody listened goes to the time at which it was', () => {
    const clock = new DeviceClock();
    clock.hello(100_000, 10_000_000);
    expect(clock.at(40_000, 10_000_001)).toEqual({ atMs: 9_940_000, jumpedMs: 0 });
    expect(clock.at(70_000, 10_000_002)).toEqual({ atMs: 9_970_000, jumpedMs: 0 });
    expect(clock.at(100_000, 10_000_003).atMs).toBe(10_000_000);
  });

  it.each([
    ['ahead', 3_600_000],
    ['back', -3_600_000],
  ])('that jumps %s is told, and the readings stay where they belong', (_way, jumpMs) => {
    const clock = new DeviceClock();
    clock.hello(0, 10_000_000);
    clock.at(1000, 10_001_000);
    const { atMs, jumpedMs } = clock.at(10_000_000 + 2000 + jumpMs - 10_000_000, 10_002_000);
    expect(atMs).toBe(10_002_000);
    expect(Math.abs(jumpedMs - jumpMs)).toBeLessThan(10);
    expect(clock.at(3000 + jumpMs, 10_003_000)).toEqual({ atMs: 10_003_000, jumpedMs: 0 });
  });

  it('that comes back as another one is told', () => {
    const clock = new DeviceClock();
    clock.hello(0, 10_000_000);
    expect(clock.hello(1000, 10_001_000)).toBe(0);
    expect(clock.hello(3_602_000, 10_002_000)).toBe(3_600_000);
  });
});

describe('lines out of bytes', () => {
  const bytes = (text: string) => new TextEncoder().encode(text);
  const read = (...parts: Uint8Array[]) => {
    const lines: string[] = [];
    let tooLong = 0;
    const reader = new LineReader(
      (line) => lines.push(line),
      () => tooLong++,
    );
    for (const part of parts) reader.push(part);
    return { lines, tooLong };
  };

  it('come whole, however they are cut', () => {
    const whole = bytes('{"ä":1}\r\n\n{"b":2}\n');
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: whole.length }), { maxLength: 6 }), (cuts) => {
        const at = [0, ...cuts.sort((a, b) => a - b), whole.length];
        const parts = at.slice(1).map((end, index) => whole.slice(at[index], end));
        expect(read(...parts)).toEqual({ lines: ['{"ä":1}', '{"b":2}'], tooLong: 0 });
      }),
    );
  });

  it('without an end are left out, and what comes after them is read', () => {
    const endless = bytes('x'.repeat(50_000));
    expect(read(endless, endless, endless, bytes('y\n{"a":1}\n'))).toEqual({ lines: ['{"a":1}'], tooLong: 1 });
  });
});
