import type { CaptureDraft } from '@marvet/core/domain/capture';
import { newId } from '@marvet/core/domain/identity';
import { describe, expect, it, vi } from 'vitest';
import { type CaptureServer, PieceSender } from './pieceSender.ts';
import { nextPart, type PieceStore, type UnsentCapture } from './pieceStore.ts';

/** The browser's database, as far as sound needs it. */
function memory(): PieceStore & { left(): number } {
  const captures = new Map<string, UnsentCapture>();
  let pieces: { captureId: string; number: number; bytes: Uint8Array<ArrayBuffer> }[] = [];
  return {
    left: () => captures.size + pieces.length,
    keepCapture: async (capture) => void captures.set(capture.id, capture),
    captures: async () => [...captures.values()],
    keepPiece: async (piece) => void pieces.push(piece),
    pieceFrom: async (captureId, number) => pieces.filter((each) => each.captureId === captureId && each.number >= number).sort((a, b) => a.number - b.number)[0] ?? null,
    lastPiece: async (captureId) => pieces.filter((each) => each.captureId === captureId).sort((a, b) => b.number - a.number)[0]?.number ?? null,
    forgetBefore: async (captureId, number) => {
      pieces = pieces.filter((each) => each.captureId !== captureId || each.number >= number);
    },
    forget: async (captureId) => {
      captures.delete(captureId);
      pieces = pieces.filter((each) => each.captureId !== captureId);
    },
    moveOn: async (captureId, id, from) => {
      pieces = pieces.map((each) => (each.captureId === captureId ? { ...each, captureId: id, number: each.number - from } : each));
      captures.set(id, nextPart(captures.get(captureId)!, id, from));
      captures.delete(captureId);
    },
    count: async () => pieces.length,
  };
}

/** A server that keeps what it acknowledged, and can be away. */
function server() {
  const told = new Map<string, { bytes: number[]; closed: boolean }>();
  const state = { away: false, told };
  const calls: CaptureServer = {
    async begin(_trialId, { id }) {
      if (state.away) return { away: true };
      const known = told.get(id) ?? { bytes: [], closed: false };
      told.set(id, known);
      return { ok: { pieces: known.bytes.length } };
    },
    async put(_trialId, id, number, bytes) {
      if (state.away) return { away: true };
      const known = told.get(id)!;
      if (known.closed) return { closed: true };
      expect(number).toBeLessThanOrEqual(known.bytes.length);
      if (number === known.bytes.length) known.bytes.push(bytes[0]!);
      return { ok: { pieces: known.bytes.length } };
    },
    async finish(_trialId, id) {
      if (state.away) return { away: true };
      told.get(id)!.closed = true;
      return { ok: { fileId: 'f' } };
    },
  };
  return Object.assign(state, { calls });
}

const capture = (id = newId()): UnsentCapture => ({ id, trialId: 't', draft: { id, part: 1 } as CaptureDraft, pieces: null, binned: false, refused: null });
const piece = (captureId: string, number: number) => ({ captureId, number, bytes: Uint8Array.of(number) });

describe('sound on its way to the disk', () => {
  it('waits while the server is away, goes in order when it is back, and is let go once it is there', async () => {
    const [store, away] = [memory(), server()];
    const sender = new PieceSender(store, away.calls, () => undefined);
    const own = capture();
    away.away = true;
    await store.keepCapture(own);
    for (let number = 0; number < 5; number++) await store.keepPiece(piece(own.id, number));
    await sender.kick();
    expect([sender.reachable, store.left()]).toEqual([false, 6]);
    away.away = false;
    await store.keepCapture({ ...own, pieces: 5 });
    await sender.kick();
    expect(away.told.get(own.id)).toEqual({ bytes: [0, 1, 2, 3, 4], closed: true });
    expect(store.left()).toBe(0);
  });

  it('a page that is opened anew sends what the one before left', async () => {
    const [store, there] = [memory(), server()];
    const own = capture();
    await store.keepCapture(own);
    await store.keepPiece(piece(own.id, 0));
    await new PieceSender(store, there.calls, () => undefined).kick();
    await store.keepPiece(piece(own.id, 1));
    await store.keepCapture({ ...own, pieces: 2 });
    await new PieceSender(store, there.calls, () => undefined).kick();
    expect(there.told.get(own.id)).toEqual({ bytes: [0, 1], closed: true });
  });

  it('what comes after the server closed a recording becomes its second part', async () => {
    const [store, there] = [memory(), server()];
    const own = capture();
    const sender = new PieceSender(store, there.calls, () => undefined);
    await store.keepCapture(own);
    await store.keepPiece(piece(own.id, 0));
    await sender.kick();
    there.told.get(own.id)!.closed = true;
    await store.keepPiece(piece(own.id, 1));
    await store.keepPiece(piece(own.id, 2));
    await store.keepCapture({ ...own, pieces: 3 });
    await sender.kick();
    const [, second] = [...there.told.values()];
    expect(second).toEqual({ bytes: [1, 2], closed: true });
    expect(store.left()).toBe(0);
  });

  it('what is recorded while the end of it is sent goes with it, whenever the recording ends', async () => {
    const [store, there] = [memory(), server()];
    const own = capture();
    await store.keepCapture(own);
    await store.keepPiece(piece(own.id, 0));
    const calls: CaptureServer = {
      ...there.calls,
      async put(...sent) {
        const answer = await there.calls.put(...sent);
        // While the first is on its way the last comes, and the take is stopped.
        if (sent[2] === 0) {
          await store.keepPiece(piece(own.id, 1));
          await store.keepCapture({ ...own, pieces: 2 });
          void sender.kick();
        }
        return answer;
      },
    };
    const sender = new PieceSender(store, calls, () => undefined);
    await sender.kick();
    expect(there.told.get(own.id)).toEqual({ bytes: [0, 1], closed: true });
    expect(store.left()).toBe(0);
  });

  it('a piece that comes while the server is found to have closed the recording is of the next part, at its place', async () => {
    const [store, there] = [memory(), server()];
    const own = capture();
    await store.keepCapture(own);
    await store.keepPiece(piece(own.id, 0));
    const calls: CaptureServer = {
      ...there.calls,
      async put(...sent) {
        const answer = await there.calls.put(...sent);
        if ('closed' in answer) {
          await store.keepPiece({ ...sender.placeOf(own.id, 2), bytes: Uint8Array.of(2) });
          await store.keepCapture({ ...own, pieces: 3 });
        }
        return answer;
      },
    };
    const sender = new PieceSender(store, calls, () => undefined);
    await sender.kick();
    there.told.get(own.id)!.closed = true;
    await store.keepPiece(piece(own.id, 1));
    await sender.kick();
    expect([...there.told.values()][1]).toEqual({ bytes: [1, 2], closed: true });
    expect(store.left()).toBe(0);
  });

  it('one that is refused is set aside with its reason, and others go on', async () => {
    const [store, there] = [memory(), server()];
    const [bad, good] = [capture(), capture()];
    const calls: CaptureServer = { ...there.calls, begin: async (trialId, draft) => (draft.id === bad.id ? { refused: 'no such take' } : there.calls.begin(trialId, draft)) };
    for (const each of [bad, good]) await store.keepCapture({ ...each, pieces: 1 });
    for (const each of [bad, good]) await store.keepPiece(piece(each.id, 0));
    const changed = vi.fn();
    await new PieceSender(store, calls, changed).kick();
    expect(await store.captures()).toMatchObject([{ id: bad.id, refused: 'no such take' }]);
    expect(there.told.get(good.id)?.closed).toBe(true);
    expect(changed).toHaveBeenCalled();
  });
});
