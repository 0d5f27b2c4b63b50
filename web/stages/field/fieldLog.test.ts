import { clockBehindMs, lineOnClock } from '@marvet/core/domain/lineClock';
import type { LogLine } from '@marvet/core/domain/logLine';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { FieldLog, type KeptClock, type LogTarget } from './fieldLog.ts';
import type { LineStore, WaitingLine } from './lineStore.ts';

/** The browser's database, as far as the log needs it. */
function memory(kept: WaitingLine[] = []): LineStore & { kept: WaitingLine[] } {
  const store = {
    kept,
    async write(line: WaitingLine) {
      store.kept = [...store.kept.filter((each) => each.id !== line.id), line];
    },
    async waiting(trialId: string) {
      return store.kept.filter((each) => each.trialId === trialId);
    },
    async forget(ids: readonly string[]) {
      store.kept = store.kept.filter((each) => !ids.includes(each.id));
    },
  };
  return store;
}

/** What this browser keeps of its clock. */
function clock(behindMs = 0): KeptClock {
  return {
    behindMs: () => behindMs,
    keep: (said) => {
      behindMs = said;
    },
  };
}

const accept = (got: LogLine[][]): LogTarget => ({
  async send(lines) {
    got.push(lines);
    return { reached: true, refused: [], clockBehindMs: 0 };
  },
  refresh: async () => undefined,
});
const note = (text: string) => ({ kind: 'note' as const, takeId: 't', text });

beforeAll(() => {
  vi.stubGlobal('window', { addEventListener: () => undefined, removeEventListener: () => undefined });
});

describe('the field log of a browser', () => {
  it('writes a line down before it shows it, and lets it go once the server has it', async () => {
    const store = memory();
    const log = new FieldLog('trial', store, clock());
    const shown: number[] = [];
    log.subscribe(() => shown.push(store.kept.length));
    const got: LogLine[][] = [];
    await log.write(note('gulls'));
    expect(shown[0]).toBe(1);
    expect(log.pending()).toHaveLength(1);
    log.start(accept(got));
    await vi.waitFor(() => expect(log.pending()).toEqual([]));
    expect(got.flat()).toHaveLength(1);
    expect(store.kept).toEqual([]);
  });

  it('a line that the server refuses is set aside with its reason; those behind it go on', async () => {
    const store = memory();
    const log = new FieldLog('trial', store, clock());
    for (const text of ['good', 'bad', 'also good']) await log.write(note(text));
    const taken: string[] = [];
    const stop = log.start({
      async send(lines) {
        const bad = lines.filter((line) => line.kind === 'note' && line.text === 'bad');
        taken.push(...lines.flatMap((line) => (line.kind === 'note' && line.text !== 'bad' ? [line.text] : [])));
        return { reached: true, refused: bad.map(({ id }) => ({ id, why: 'Too windy' })), clockBehindMs: 0 };
      },
      refresh: async () => undefined,
    });
    await vi.waitFor(() => expect(log.refused()).toHaveLength(1));
    expect(log.refused()[0]).toMatchObject({ why: 'Too windy', line: { text: 'bad' } });
    expect(taken).toEqual(['good', 'also good']);
    expect(log.pending()).toEqual([]);
    // It is still there after a reload, until it is mended or dropped.
    expect(store.kept.map((each) => each.refused)).toEqual(['Too windy']);
    await log.mend({ ...(log.refused()[0]!.line as LogLine & { kind: 'note' }), text: 'mended' });
    await vi.waitFor(() => expect(taken).toContain('mended'));
    await vi.waitFor(() => expect(store.kept).toEqual([]));
    stop();
  });

  it('a refused line that is dropped is gone', async () => {
    const store = memory();
    const log = new FieldLog('trial', store, clock());
    await log.write(note('bad'));
    log.start({ send: async (lines) => ({ reached: true, refused: lines.map(({ id }) => ({ id, why: 'no' })), clockBehindMs: 0 }), refresh: async () => undefined });
    await vi.waitFor(() => expect(log.refused()).toHaveLength(1));
    await log.drop(log.refused()[0]!.line.id);
    expect([log.refused(), store.kept]).toEqual([[], []]);
  });

  it('leaving the view with a line on its way blocks nothing: the next visit sends it', async () => {
    const store = memory();
    const log = new FieldLog('trial', store, clock());
    await log.write(note('on its way'));
    const warned = vi.spyOn(console, 'warn').mockImplementation(() => undefined);
    let leave: () => void = () => undefined;
    const stop = log.start({
      send: () => new Promise((_resolve, reject) => (leave = () => reject(new Error('the view is gone')))),
      refresh: async () => undefined,
    });
    await vi.waitFor(() => expect(leave.length).toBe(0));
    stop();
    leave();
    const got: LogLine[][] = [];
    await vi.waitFor(() => expect(warned).toHaveBeenCalled());
    log.start(accept(got));
    await vi.waitFor(() => expect(log.pending()).toEqual([]));
    expect(got.flat()).toHaveLength(1);
    warned.mockRestore();
  });

  it('takes up what an earlier visit left, in its order, and shows that the server cannot be reached', async () => {
    const line = (order: number): WaitingLine => ({
      id: `l${order}`,
      trialId: 'trial',
      order,
      line: { ...note(`${order}`), id: `l${order}`, atMs: order } as LogLine,
      refused: null,
      addedMs: 0,
    });
    const log = new FieldLog('trial', memory([line(1), line(2)]), clock());
    const stop = log.start({ send: async () => ({ reached: false }), refresh: async () => undefined });
    await vi.waitFor(() => expect(log.reachable).toBe(false));
    expect(log.pending().map((each) => each.id)).toEqual(['l1', 'l2']);
    stop();
  });
});

describe('a clock that is behind', () => {
  const BEHIND_MS = 190_000;
  /** A server that finds out, from what a device's clock says when it sends, by how much it is behind. */
  const server = (got: { lines: LogLine[]; addedMs: number }[]): LogTarget => ({
    async send(lines, { sentAtMs, addedMs, knownMs }) {
      // The way of every message takes another while.
      const wayMs = 30 * got.length;
      const behindMs = clockBehindMs(sentAtMs, Date.now() + BEHIND_MS + wayMs, knownMs);
      got.push({ lines: lines.map((line) => lineOnClock(line, behindMs - addedMs)), addedMs });
      return { reached: true, refused: [], clockBehindMs: behindMs };
    },
    refresh: async () => undefined,
  });

  it('is known after the first answer: what is written then has the server’s time, and what waits is shown by it', async () => {
    const got: { lines: LogLine[]; addedMs: number }[] = [];
    const kept = clock();
    const log = new FieldLog('trial', memory(), kept);
    await log.write(note('first'));
    expect(Math.abs(log.pending()[0]!.atMs - Date.now())).toBeLessThan(1000);
    log.start(server(got));
    await vi.waitFor(() => expect(log.pending()).toEqual([]));
    expect(Math.abs(kept.behindMs() - BEHIND_MS)).toBeLessThan(100);
    await log.write(note('second'));
    await vi.waitFor(() => expect(got).toHaveLength(2));
    const [first, second] = got.flatMap(({ lines }) => lines);
    // One after the other, though they were written by two clocks, and by the server's both.
    expect(second!.atMs).toBeGreaterThan(first!.atMs);
    for (const { atMs } of [first!, second!]) expect(Math.abs(atMs - Date.now() - BEHIND_MS)).toBeLessThan(1500);
  });

  it('many lines that go in several messages keep their order, though every message takes another while', async () => {
    const got: { lines: LogLine[]; addedMs: number }[] = [];
    const log = new FieldLog('trial', memory(), clock());
    for (let index = 0; index < 450; index++) await log.write(note(`${index}`));
    log.start(server(got));
    await vi.waitFor(() => expect(log.pending()).toEqual([]));
    expect(got.map(({ lines }) => lines.length)).toEqual([200, 200, 50]);
    const times = got.flatMap(({ lines }) => lines.map(({ atMs }) => atMs));
    expect([...times].sort((a, b) => a - b)).toEqual(times);
    expect(new Set(times).size).toBe(450);
  });

  it('lines of two clocks never go in one batch, and all are shown by the server’s', async () => {
    const kept = clock();
    const store = memory();
    const before = new FieldLog('trial', store, kept);
    for (const text of ['a', 'b']) await before.write(note(text));
    // Another trial learns of it meanwhile; the browser keeps one clock.
    kept.keep(BEHIND_MS);
    await before.write(note('c'));
    const shown = before.pending().map(({ atMs }) => atMs);
    expect([...shown].sort((a, b) => a - b)).toEqual(shown);
    for (const atMs of shown) expect(Math.abs(atMs - Date.now() - BEHIND_MS)).toBeLessThan(1500);
    const got: { lines: LogLine[]; addedMs: number }[] = [];
    before.start(server(got));
    await vi.waitFor(() => expect(before.pending()).toEqual([]));
    expect(got.map(({ lines, addedMs }) => [lines.length, addedMs])).toEqual([
      [2, 0],
      [1, BEHIND_MS],
    ]);
    const times = got.flatMap(({ lines }) => lines.map(({ atMs }) => atMs));
    expect([...times].sort((a, b) => a - b)).toEqual(times);
    for (const atMs of times) expect(Math.abs(atMs - Date.now() - BEHIND_MS)).toBeLessThan(1500);
  });
});
