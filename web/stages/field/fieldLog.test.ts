import type { LogLine } from '@marvet/core/domain/logLine';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { FieldLog, type LogTarget } from './fieldLog.ts';
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

const accept = (got: LogLine[][]): LogTarget => ({
  async send(lines) {
    got.push(lines);
    return { reached: true, refused: [] };
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
    const log = new FieldLog('trial', store);
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
    const log = new FieldLog('trial', store);
    for (const text of ['good', 'bad', 'also good']) await log.write(note(text));
    const taken: string[] = [];
    const stop = log.start({
      async send(lines) {
        const bad = lines.filter((line) => line.kind === 'note' && line.text === 'bad');
        taken.push(...lines.flatMap((line) => (line.kind === 'note' && line.text !== 'bad' ? [line.text] : [])));
        return { reached: true, refused: bad.map(({ id }) => ({ id, why: 'Too windy' })) };
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
    const log = new FieldLog('trial', store);
    await log.write(note('bad'));
    log.start({ send: async (lines) => ({ reached: true, refused: lines.map(({ id }) => ({ id, why: 'no' })) }), refresh: async () => undefined });
    await vi.waitFor(() => expect(log.refused()).toHaveLength(1));
    await log.drop(log.refused()[0]!.line.id);
    expect([log.refused(), store.kept]).toEqual([[], []]);
  });

  it('leaving the view with a line on its way blocks nothing: the next visit sends it', async () => {
    const store = memory();
    const log = new FieldLog('trial', store);
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
    });
    const log = new FieldLog('trial', memory([line(1), line(2)]));
    const stop = log.start({ send: async () => ({ reached: false }), refresh: async () => undefined });
    await vi.waitFor(() => expect(log.reachable).toBe(false));
    expect(log.pending().map((each) => each.id)).toEqual(['l1', 'l2']);
    stop();
  });
});
