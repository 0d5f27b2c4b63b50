import { partsAround } from '../partsAround.ts';
import type { TimedTake } from './timed.ts';

/** Where in a long file a take lies, in seconds of the file. */
export interface DayCut {
  takeId: string;
  startS: number;
  endS: number;
  /** Where the log says that it began; before 0 where it began in the file before. */
  logStartS: number;
  /** How it is cut off by the file: it began before it, or went on after it. */
  cutOff: 'begins before' | 'goes on after' | null;
}

/** So much is left about a take: a slate before it, room tone after it. */
const MARGIN_S = 5;
/** A clock is known to a few seconds: what is missing of a take is told from here on. */
const MISSING_S = 5;
/** Less of a take than this is no part of it. */
const LEAST_S = 1;
/** A take that was never stopped is taken to last no longer. */
const LONGEST_S = 600;

/**
 * Parts of a file that ran on over several takes: each take with five seconds before and after it, or half of the pause where that is
 * shorter, so that no two overlap. What a file holds only in part is cut off at its end.
 * @param startsAtMs when the file began, by the log's clock
 */
export function dayCuts({ startsAtMs, durationS }: { startsAtMs: number; durationS: number }, takes: readonly TimedTake[]): DayCut[] {
  const ordered = [...takes].sort((a, b) => a.startedAtMs - b.startedAtMs);
  const spans = ordered.map(({ id, startedAtMs, stoppedAtMs }, index) => {
    const nextMs = ordered[index + 1]?.startedAtMs ?? Number.POSITIVE_INFINITY;
    const endMs = stoppedAtMs ?? Math.min(nextMs, startedAtMs + LONGEST_S * 1000);
    return { takeId: id, startS: (startedAtMs - startsAtMs) / 1000, endS: (Math.min(endMs, Math.max(nextMs, startedAtMs)) - startsAtMs) / 1000 };
  });
  return partsAround(spans, { startS: 0, endS: durationS }, MARGIN_S).flatMap((part, index): DayCut[] => {
    const { startS: fromS, endS: toS } = spans[index] as (typeof spans)[number];
    if (Math.min(toS, durationS) - Math.max(fromS, 0) < LEAST_S) return [];
    return [{ ...part, logStartS: fromS, cutOff: fromS < -MISSING_S ? 'begins before' : toS > durationS + MISSING_S ? 'goes on after' : null }];
  });
}
