import type { RankDoubt } from './rankDoubt.ts';
import { closeToFirst, MOST_TAKES } from './sayDoubt.ts';

/** A plan does each setup at most so often. */
const MOST_REPEATS = 10;

/** What to put into the plan so that the first can be told from the one that is closest to it. */
export interface RecordNext {
  candidateId: string;
  /** How often each setup is done then, and how many takes that adds. */
  repeats: number;
  takes: number;
  aheadPoints: number;
  /** Half of the width of 95 of 100 as it is, and as it is to be expected then: it falls with the root of the number of takes. */
  withinPoints: number;
  thenPoints: number;
}

/**
 * How often a plan would have to be gone through, for the closest rival that more takes can tell apart.
 * @param repeats how often it does each setup now
 * @param takesOfPlan takes of the whole plan as it stands, done or not
 * @param open of these, those that were not done yet: they are recorded anyway
 * @returns null where nothing is too close, where nothing would tell, or where what is planned already is enough
 */
export function recordNext(doubt: RankDoubt, { repeats, takesOfPlan, open }: { repeats: number; takesOfPlan: number; open: number }): RecordNext | null {
  const once = takesOfPlan / repeats;
  const close = (closeToFirst(doubt)?.close ?? []).filter(({ toSettle }) => toSettle?.moreTakes !== undefined && toSettle.moreTakes !== null && toSettle.moreTakes <= MOST_TAKES);
  const rival = close.sort((a, b) => b.best - a.best)[0];
  if (!rival?.toSettle || once < 1) return null;
  const { moreTakes, aheadPoints, withinPoints, takes: now } = rival.toSettle;
  const needed = (moreTakes as number) - open;
  if (needed <= 0 || repeats >= MOST_REPEATS) return null;
  const then = Math.min(MOST_REPEATS, repeats + Math.ceil(needed / once));
  const takes = Math.round((then - repeats) * once);
  return { candidateId: rival.candidateId, repeats: then, takes, aheadPoints, withinPoints, thenPoints: withinPoints * Math.sqrt(now / (now + takes + open)) };
}

/** What it would bring, as a sentence. */
export function recordNextText(next: RecordNext, first: string, rival: string): string {
  const points = (value: number) => value.toFixed(1);
  return `${first} is ${points(next.aheadPoints)} points ahead of ${rival}, known to within ${points(next.withinPoints)}. With ${next.takes} takes more like these that would be some ${points(next.thenPoints)}.`;
}
