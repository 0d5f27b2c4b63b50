import type { ClipOrder, Round } from '../domain/round.ts';

/** Whether an order has each letter once, and no other. */
export function isWholeOrder(order: ClipOrder, letters: readonly string[]): boolean {
  const placed = order.flat();
  return placed.length === letters.length && letters.every((letter) => placed.includes(letter));
}

/**
 * The rank of each letter of an order, 1 for the best; those that stand together have the mean of their ranks.
 * @example ranksOfOrder([['B'], ['A', 'C']]) // { B: 1, A: 2.5, C: 2.5 }
 */
export function ranksOfOrder(order: ClipOrder): Record<string, number> {
  let before = 0;
  const ranks: Record<string, number> = {};
  for (const equal of order) {
    for (const letter of equal) ranks[letter] = before + (equal.length + 1) / 2;
    before += equal.length;
  }
  return ranks;
}

/**
 * The order with a letter moved: it stands alone there, or with those between whom it was put.
 * @param to its place among all letters, from 0
 */
export function movedInOrder(order: ClipOrder, letter: string, to: number): ClipOrder {
  const rest = order.map((equal) => equal.filter((each) => each !== letter)).filter((equal) => equal.length > 0);
  let before = 0;
  for (const [at, equal] of rest.entries()) {
    if (to <= before) return rest.toSpliced(at, 0, [letter]);
    if (to < before + equal.length) return rest.toSpliced(at, 1, equal.toSpliced(to - before, 0, letter));
    before += equal.length;
  }
  return [...rest, [letter]];
}

/** The order with a letter put beside the one before it as equally good, or parted from it. */
export function joinedInOrder(order: ClipOrder, letter: string): ClipOrder {
  const joined = new Set(order.flatMap((equal) => equal.slice(1)));
  if (!joined.delete(letter)) joined.add(letter);
  const parted: string[][] = [];
  for (const each of order.flat()) {
    const last = parted.at(-1);
    if (last && joined.has(each)) last.push(each);
    else parted.push([each]);
  }
  return parted;
}

/** Where a recording came on a criterion, over all listeners. */
export interface RankedPlace {
  recordingId: string;
  meanRank: number;
  /** Its place by that, from 1; equal ones share it. */
  place: number;
  /** Listeners who put it first, alone or with others. */
  first: number;
}

/** What came of clips that were put in order, the best first; empty while nobody is done. */
export function rankedOutcome({ recordingIds, listeners }: Pick<Round, 'recordingIds' | 'listeners'>, criterionId: string): RankedPlace[] {
  const given = listeners.flatMap(({ letters, orders }) => {
    const order = orders[criterionId];
    return letters && order ? [{ letters, ranks: ranksOfOrder(order), first: order[0] ?? [] }] : [];
  });
  if (given.length === 0) return [];
  const ranked = recordingIds
    .map((recordingId) => {
      const ranks = given.map(({ letters, ranks: own, first }) => {
        const letter = Object.keys(letters).find((each) => letters[each] === recordingId) ?? '';
        return { rank: own[letter] ?? 0, first: first.includes(letter) };
      });
      return { recordingId, meanRank: ranks.reduce((sum, { rank }) => sum + rank, 0) / ranks.length, first: ranks.filter(({ first }) => first).length };
    })
    .sort((a, b) => a.meanRank - b.meanRank);
  return ranked.map((each) => ({ ...each, place: 1 + ranked.filter(({ meanRank }) => meanRank < each.meanRank - SAME_RANK).length }));
}

/** Mean ranks that differ by less are equal, also where the last digit says otherwise. */
const SAME_RANK = 1e-9;
