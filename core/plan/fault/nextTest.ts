import type { FaultSearch, FaultTest, Suspect } from '../../domain/faultSearch.ts';

/** Chance that a test may be wrong by when a fault that comes and goes did not show. */
const MISSED_AT_MOST = 0.05;

export interface SearchState {
  /** Who may still be guilty, in signal order. */
  left: Suspect[];
  /** What to replace next; null when one is left, or none. */
  next: Suspect[] | null;
  /** Tests that are still needed at most, the next one included. */
  testsLeft: number;
  /** How often each test has to be tried before a fault counts as gone. */
  tries: number;
  guilty: Suspect | null;
  /** The answers contradict each other: no suspect fits them all. */
  contradiction: boolean;
}

/**
 * Where a search for one guilty link stands. Replacing links by good ones and hearing the fault still
 * clears them; not hearing it clears the rest. Each test replaces half of those who are left, neighbours
 * first, so that n suspects need no more than the next whole number of log2 n tests, which no other
 * plan of such tests can better.
 *
 * A fault that shows in a share p of tries is counted as gone only after so many quiet tries that
 * (1 - p) to their number is 0.05 at most.
 */
export function searchState(search: Pick<FaultSearch, 'suspects' | 'tests' | 'seenShare'>): SearchState {
  const left = search.suspects.filter((suspect) => search.tests.every((test) => fits(suspect, test)));
  const next = left.length > 1 ? left.slice(0, Math.floor(left.length / 2)) : null;
  return {
    left,
    next,
    testsLeft: left.length > 1 ? Math.ceil(Math.log2(left.length)) : 0,
    tries: triesFor(search.seenShare),
    guilty: left.length === 1 && search.suspects.length > 1 ? (left[0] as Suspect) : null,
    contradiction: left.length === 0 && search.suspects.length > 0,
  };
}

/** Whether a suspect can be the guilty one after a test. */
function fits(suspect: Suspect, test: FaultTest): boolean {
  return test.replacedIds.includes(suspect.id) ? !test.heard : test.heard;
}

/**
 * Quiet tries after which a fault that shows in a share of tries counts as gone.
 * @example triesFor(0.5) // 5, since 0.5 ** 5 is 0.031
 */
export function triesFor(seenShare: number): number {
  return seenShare >= 1 ? 1 : Math.ceil(Math.log(MISSED_AT_MOST) / Math.log(1 - seenShare));
}
