import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { memoryForClips } from './memoryForClips.ts';
import { PieceFeed, Refused } from './pieceFeed.ts';
import { LEAST_PIECES, wantedPieces } from './wantedPieces.ts';

const PIECE = 96_000;
afterEach(() => vi.useRealTimers());

describe('which pieces are needed', () => {
  it('what comes next first, then where the loop begins again, then what was just heard', () => {
    expect(wantedPieces({ at: 10, loop: [4, 20], pieces: 300 }, 8)).toEqual([10, 11, 4, 5, 9, 12, 13, 14]);
    expect(wantedPieces({ at: 20, loop: [4, 20], pieces: 300 }, 6)).toEqual([20, 4, 5, 19, 6, 7]);
  });

  it('all of short clips', () => {
    expect(wantedPieces({ at: 1, loop: [0, 2], pieces: 5 }, 100).sort()).toEqual([0, 1, 2, 3, 4]);
    expect(wantedPieces({ at: 0, loop: [0, 0], pieces: 1 }, 100)).toEqual([0]);
  });

  it('each once, in the clips, never more than there is room for, and always what is heard and what follows', () => {
    const any = fc.record({ at: fc.nat(400), from: fc.nat(400), length: fc.nat(400), pieces: fc.integer({ min: 1, max: 400 }), room: fc.integer({ min: LEAST_PIECES, max: 80 }) });
    fc.assert(
      fc.property(any, ({ at, from, length, pieces, room }) => {
        const first = from % pieces;
        const last = Math.min(pieces - 1, first + length);
        const standing = { at: first + (at % (last - first + 1)), loop: [first, last] as const, pieces };
        const wanted = wantedPieces(standing, room);
        expect(new Set(wanted).size).toBe(wanted.length);
        expect(wanted.length).toBe(Math.min(room, pieces));
        expect(wanted.every((piece) => piece >= 0 && piece < pieces)).toBe(true);
        expect(wanted).toContain(standing.at);
        expect(wanted).toContain(standing.at < last ? standing.at + 1 : first);
        expect(wanted).toContain(first);
      }),
    );
  });
});

function fed(clips: number, seconds: number, budgetBytes: number, fails: (piece: number, attempt: number) => Error | null = () => null) {
  const held = new Set<number>();
  const asked: number[] = [];
  const failures: string[] = [];
  let most = 0;
  const feed = new PieceFeed(
    {
      clips,
      frames: seconds * 48_000,
      pieceFrames: PIECE,
      pieceBytes: clips * PIECE * 4,
      async fetchPiece(piece) {
        asked.push(piece);
        const error = fails(piece, asked.filter((each) => each === piece).length);
        if (error) throw error;
        return [];
      },
    },
    {
      take(piece) {
        held.add(piece);
        most = Math.max(most, held.size * clips * PIECE * 4);
      },
      drop: (piece) => void held.delete(piece),
      failed: (error) => failures.push(error.message),
    },
    budgetBytes,
  );
  return { feed, held, asked, failures, most: () => most };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

describe('the feed', () => {
  it('holds twelve clips of ten minutes in no more than it may, wherever one listens, and never lets go of what comes next', async () => {
    const budget = 160 << 20;
    const { feed, held, most } = fed(12, 600, budget);
    feed.go();
    await settled();
    for (let second = 0; second < 600; second += 1) {
      feed.at(second * 48_000);
      await settled();
      expect(held.has(Math.floor((second * 48_000) / PIECE))).toBe(true);
    }
    for (const seconds of [590, 3, 300, 299]) {
      feed.at(seconds * 48_000);
      await settled();
      expect(held.has(Math.floor((seconds * 48_000) / PIECE))).toBe(true);
    }
    feed.loop(100 * 48_000, 500 * 48_000);
    await settled();
    expect(held.has(50)).toBe(true);
    expect(most()).toBeLessThanOrEqual(budget);
    feed.close();
  });

  it('of short clips fetches every piece once', async () => {
    const { feed, asked } = fed(4, 19, 160 << 20);
    feed.go();
    await settled();
    for (const second of [5, 18, 0, 7]) feed.at(second * 48_000);
    await settled();
    expect([...asked].sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
  });

  it('asks again where the line breaks, and says so when it stays broken or is refused', async () => {
    vi.useFakeTimers();
    const flaky = fed(2, 20, 1 << 30, (_piece, attempt) => (attempt < 3 ? new Error('away') : null));
    flaky.feed.go();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(flaky.held.size).toBe(10);
    expect(flaky.failures).toEqual([]);
    const broken = fed(2, 20, 1 << 30, () => new Error('away'));
    broken.feed.go();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(broken.failures).toEqual(['away', 'away']);
    expect(broken.asked).toHaveLength(8);
    const refused = fed(2, 20, 1 << 30, () => new Refused('closed'));
    refused.feed.go();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(refused.asked).toHaveLength(2);
    expect(refused.failures[0]).toBe('closed');
  });

  it('left, it asks for nothing more', async () => {
    const { feed, asked } = fed(2, 600, 1 << 30);
    feed.go();
    feed.close();
    await settled();
    expect(asked).toHaveLength(2);
  });
});

describe('memory for clips', () => {
  it('is a little part of the device, and enough to listen on the smallest', () => {
    expect([undefined, 8, 4, 2, 0.25].map((gib) => Math.round(memoryForClips(gib) / (1 << 20)))).toEqual([102, 160, 102, 51, 16]);
  });
});
