import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isWholeOrder, joinedInOrder, movedInOrder, rankedOutcome, ranksOfOrder } from './ranking.ts';

const LETTERS = ['A', 'B', 'C', 'D', 'E'];
/** Letters in any order, with any of them equal to the one before. */
const orders = fc.tuple(fc.shuffledSubarray(LETTERS, { minLength: 5 }), fc.array(fc.boolean(), { minLength: 5, maxLength: 5 })).map(([letters, equal]) =>
  letters.reduce<string[][]>((all, letter, at) => {
    if (at > 0 && equal[at]) all.at(-1)?.push(letter);
    else all.push([letter]);
    return all;
  }, []),
);

describe('clips in order', () => {
  it('gives ranks whose sum is that of all places, and equal ones the mean of theirs', () => {
    expect(ranksOfOrder([['B'], ['A', 'C'], ['D']])).toEqual({ B: 1, A: 2.5, C: 2.5, D: 4 });
    fc.assert(
      fc.property(orders, (order) => {
        const ranks = Object.values(ranksOfOrder(order));
        expect(ranks.reduce((sum, each) => sum + each, 0)).toBe(15);
      }),
    );
  });

  it('has each letter once and no other', () => {
    expect(isWholeOrder([['A', 'B'], ['C']], ['A', 'B', 'C'])).toBe(true);
    for (const wrong of [
      [['A'], ['B']],
      [['A', 'A'], ['B']],
      [['A'], ['B'], ['D']],
      [['A'], ['B'], ['C'], ['D']],
    ])
      expect(isWholeOrder(wrong, ['A', 'B', 'C'])).toBe(false);
  });

  it('moves one to a place, and leaves the others as they stand to each other', () => {
    expect(movedInOrder([['A'], ['B', 'C'], ['D']], 'D', 0)).toEqual([['D'], ['A'], ['B', 'C']]);
    expect(movedInOrder([['A'], ['B', 'C'], ['D']], 'A', 1)).toEqual([['B', 'A', 'C'], ['D']]);
    expect(movedInOrder([['A', 'B'], ['C']], 'A', 2)).toEqual([['B'], ['C'], ['A']]);
    fc.assert(
      fc.property(orders, fc.constantFrom(...LETTERS), fc.integer({ min: 0, max: 4 }), (order, letter, to) => {
        const moved = movedInOrder(order, letter, to);
        expect(isWholeOrder(moved, LETTERS)).toBe(true);
        expect(moved.flat()[to]).toBe(letter);
        const rest = (of: readonly string[][]) => of.map((equal) => equal.filter((each) => each !== letter)).filter((equal) => equal.length > 0);
        expect(rest(moved)).toEqual(rest(order));
      }),
    );
  });

  it('puts one beside the one before it, and parts them again', () => {
    expect(joinedInOrder([['A'], ['B'], ['C']], 'B')).toEqual([['A', 'B'], ['C']]);
    expect(joinedInOrder([['A', 'B', 'C']], 'B')).toEqual([['A'], ['B', 'C']]);
    expect(joinedInOrder([['A'], ['B']], 'A')).toEqual([['A'], ['B']]);
    fc.assert(
      fc.property(orders, fc.constantFrom(...LETTERS), (order, letter) => {
        expect(joinedInOrder(joinedInOrder(order, letter), letter)).toEqual(order);
      }),
    );
  });

  it('tells where each recording came over all listeners, whatever its letters were', () => {
    const listener = (letters: Record<string, string> | null, order: string[][]) => ({ letters, orders: { clear: order } });
    const listeners = [
      listener({ A: 'x', B: 'y', C: 'z' }, [['A'], ['B'], ['C']]),
      listener({ A: 'z', B: 'x', C: 'y' }, [['B', 'C'], ['A']]),
      listener(null, [['C'], ['B'], ['A']]),
    ] as never;
    expect(rankedOutcome({ recordingIds: ['x', 'y', 'z'], listeners }, 'clear')).toEqual([
      { recordingId: 'x', meanRank: 1.25, first: 2, place: 1 },
      { recordingId: 'y', meanRank: 1.75, first: 1, place: 2 },
      { recordingId: 'z', meanRank: 3, first: 0, place: 3 },
    ]);
    expect(rankedOutcome({ recordingIds: ['x', 'y', 'z'], listeners }, 'other')).toEqual([]);
    const even = [listener({ A: 'x', B: 'y', C: 'z' }, [['A'], ['B'], ['C']]), listener({ A: 'x', B: 'y', C: 'z' }, [['B'], ['A'], ['C']])] as never;
    expect(rankedOutcome({ recordingIds: ['x', 'y', 'z'], listeners: even }, 'clear').map(({ place }) => place)).toEqual([1, 1, 3]);
  });
});
