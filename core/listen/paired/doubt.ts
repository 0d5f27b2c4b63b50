import { atLeast, atMost } from '../../statistics/binomial.ts';
import { exactShare } from '../../statistics/exactTests.ts';

/** What counts as told apart: guessing would do as well in one test of twenty at most. */
export const LEVEL = 0.05;
/** A difference counts as one that a test finds where it finds it four times of five. */
export const POWER = 0.8;
const CONFIDENCE = 0.95;
const HALVINGS = 40;

/** Share of right answers that guessing gives: X is A or B; one of three is the odd one. */
export const GUESSED = { same: 1 / 2, odd: 1 / 3 } as const;

/**
 * The fewest right answers that guessing reaches in at most `LEVEL` of tests; null where not even all of them are enough.
 * @example fewestRight(16, 0.5) // 12
 */
export function fewestRight(tries: number, guessed: number, level = LEVEL): number | null {
  for (let right = 0; right <= tries; right++) if (atLeast(right, tries, guessed) <= level) return right;
  return null;
}

/**
 * How often a test finds a difference that is truly heard in a part of its comparisons, and guessed at in the others.
 * @param heard 0 to 1
 */
export function power(tries: number, guessed: number, heard: number, level = LEVEL): number {
  const needed = fewestRight(tries, guessed, level);
  return needed === null ? 0 : reaches(needed, tries, guessed, heard);
}

/** How often so many are right, where the difference is truly heard in a part of them. */
const reaches = (needed: number, tries: number, guessed: number, heard: number) => atLeast(needed, tries, guessed + (1 - guessed) * heard);

/**
 * The least part of comparisons in which a difference must truly be heard for the test to find it four times of five; null where it finds none.
 * @example leastHeard(16, 0.5) // 0.6
 */
export function leastHeard(tries: number, guessed: number, level = LEVEL): number | null {
  const needed = fewestRight(tries, guessed, level);
  if (needed === null) return null;
  let [low, high] = [0, 1];
  for (let step = 0; step < HALVINGS; step++) {
    const middle = (low + high) / 2;
    if (reaches(needed, tries, guessed, middle) < POWER) low = middle;
    else high = middle;
  }
  return high;
}

/** What came of comparisons with a right answer. */
export interface Told {
  right: number;
  tries: number;
  /** How likely guessing does as well. */
  byGuessing: number;
  /** How likely guessing does as badly. */
  worseByGuessing: number;
  /** The fewest right answers that would have been enough; null where there are too few for any. */
  needed: number | null;
  /** In which part of them the difference was truly heard: from, most likely, to. */
  heard: [low: number, likely: number, high: number];
  /** The least part in which it must be heard for such a test to find it. */
  leastHeard: number | null;
  apart: boolean;
}

/** Judges comparisons with a right answer against guessing; what is heard is the share above guessing, with an exact interval of 95 % (W. S. Abbott's correction of 1925). */
export function told(right: number, tries: number, guessed: number): Told {
  const above = (share: number) => Math.max(0, (share - guessed) / (1 - guessed));
  const [low, high] = tries === 0 ? [0, 1] : exactShare(right, tries, CONFIDENCE);
  const byGuessing = atLeast(right, tries, guessed);
  return {
    right,
    tries,
    byGuessing,
    worseByGuessing: atMost(right, tries, guessed),
    needed: fewestRight(tries, guessed),
    heard: [above(low), above(tries === 0 ? 0 : right / tries), above(high)],
    leastHeard: leastHeard(tries, guessed),
    apart: byGuessing <= LEVEL,
  };
}

/** Choices between two, without a right answer. */
export interface Preferred {
  /** For the one, and for the other. */
  first: number;
  second: number;
  /** How likely choices without any preference lie as far apart, either way. */
  byChance: number;
  /** The fewest of them that must go one way. */
  needed: number | null;
  /** Part of choices that go to the first: from, to. */
  share: [low: number, high: number];
  /** The least part of choices that must go one way for such a test to find it; null where it finds none. */
  leastShare: number | null;
  clear: boolean;
}

/** Judges choices between two against no preference: the sign test, both sides, exact. */
export function preferred(first: number, second: number): Preferred {
  const tries = first + second;
  const byChance = Math.min(1, 2 * atLeast(Math.max(first, second), tries, 0.5));
  const least = leastHeard(tries, 0.5, LEVEL / 2);
  return {
    first,
    second,
    byChance,
    needed: fewestRight(tries, 0.5, LEVEL / 2),
    share: tries === 0 ? [0, 1] : exactShare(first, tries, CONFIDENCE),
    leastShare: least === null ? null : 0.5 + least / 2,
    clear: byChance <= LEVEL,
  };
}

/**
 * Doubts of several tests at once, so that one of many is not believed by chance (S. Holm, A simple sequentially rejective multiple
 * test procedure, 1979).
 * @example holm([0.01, 0.04, 0.03]) // [0.03, 0.06, 0.06]
 */
export function holm(doubts: readonly number[]): number[] {
  const order = doubts.map((doubt, at) => ({ doubt, at })).sort((a, b) => a.doubt - b.doubt);
  const adjusted = new Array<number>(doubts.length).fill(1);
  let least = 0;
  for (const [rank, { doubt, at }] of order.entries()) {
    least = Math.max(least, Math.min(1, (doubts.length - rank) * doubt));
    adjusted[at] = least;
  }
  return adjusted;
}
