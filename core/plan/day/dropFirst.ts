import { CONDITION_KINDS } from '../../domain/factor.ts';
import { candidatesOf } from '../../domain/take.ts';
import { levelOfTake, type PlannedTake, takeKey } from '../gather.ts';
import { type ChangeCosts, changeS, changesBetween } from '../order/changeCost.ts';

/** A take that may be dropped, and what goes with it. */
export interface Droppable {
  takeIndex: number;
  /**
   * Evidence lost, in comparisons: for each two levels of a factor the share of their fair pairs that
   * only this take gives, 1 when it is the last, and ten more for a comparison that is lost for good.
   */
  lossComparisons: number;
  /** Comparisons that nothing is left for. */
  lostForGood: number;
  /** What leaving it out saves: the take, and the changes that go with it. */
  savedS: number;
}

/** Time that a day spends, as far as dropping a take changes it. */
export interface DayTimes extends ChangeCosts {
  /** A take with its overhead. */
  takeS(take: PlannedTake): number;
}

/**
 * Takes in the order in which they may be dropped when the day runs late, the least loss for each minute
 * saved first: a repeat costs nothing, a take whose comparisons others give too costs little, the only
 * pair of a comparison most; and one that a long change goes with saves more than its own length. Each
 * is ranked as if those before it were dropped already.
 * @param mayDrop which takes may be dropped; the others count for what they give
 */
export function dropFirst(takes: readonly PlannedTake[], times: DayTimes, most = 10, mayDrop: (takeIndex: number) => boolean = () => true): Droppable[] {
  const left = new Set(takes.keys());
  const dropped: Droppable[] = [];
  while (dropped.length < most && left.size > 1) {
    const links = fairLinks(takes, left);
    // A set keeps the order in which it was filled, which is that of the day.
    const order = [...left];
    let best: Droppable | null = null;
    for (const [at, takeIndex] of order.entries()) {
      if (!mayDrop(takeIndex)) continue;
      const loss = { ...lossOf(takeIndex, links), savedS: savedS(takes, order, at, times) };
      if (best === null || isCheaper(loss, best)) best = loss;
    }
    if (!best) break;
    dropped.push(best);
    left.delete(best.takeIndex);
  }
  return dropped;
}

/** Less is lost for each minute saved; of two that lose nothing the one that saves more, then the later. */
function isCheaper(a: Droppable, b: Droppable): boolean {
  const [own, other] = [a, b].map((each) => each.lossComparisons / Math.max(1, each.savedS)) as [number, number];
  if (own !== other) return own < other;
  return a.savedS === b.savedS ? a.takeIndex > b.takeIndex : a.savedS > b.savedS;
}

/** What leaving out the take at a place of the order saves. */
function savedS(takes: readonly PlannedTake[], order: readonly number[], at: number, times: DayTimes): number {
  const [before, own, after] = [order[at - 1], order[at], order[at + 1]].map((index) => (index === undefined ? null : (takes[index] as PlannedTake)));
  const changeBetween = (from: PlannedTake | null | undefined, to: PlannedTake | null | undefined) =>
    from && to ? changesBetween(from, to).reduce((sum, kind) => sum + changeS(times, kind, levelOfTake(from, kind), levelOfTake(to, kind)), 0) : 0;
  return times.takeS(own as PlannedTake) + changeBetween(before, own) + changeBetween(own, after) - changeBetween(before, after);
}

const LOST = 10;

interface Links {
  /** Per comparison of two levels: number of fair pairs of takes. */
  counts: Map<string, number>;
  /** Per take: how many of the pairs of a comparison it is part of. */
  ofTake: Map<number, Map<string, number>>;
}

/** Fair pairs of takes, by the two levels that they compare; takes of the same setup stand in for each other. */
function fairLinks(takes: readonly PlannedTake[], left: ReadonlySet<number>): Links {
  const counts = new Map<string, number>();
  const ofTake = new Map<number, Map<string, number>>();
  const note = (comparison: string, ...indices: number[]) => {
    counts.set(comparison, (counts.get(comparison) ?? 0) + 1);
    for (const index of indices) {
      const own = ofTake.get(index) ?? new Map<string, number>();
      ofTake.set(index, own.set(comparison, (own.get(comparison) ?? 0) + 1));
    }
  };
  for (const kind of [...CONDITION_KINDS, 'candidate' as const]) {
    const groups = new Map<string, number[]>();
    for (const index of left) {
      const take = takes[index] as PlannedTake;
      const key =
        kind === 'candidate'
          ? takeKey({ ...take, setups: [] })
          : `${levelOfTake(take, 'candidate')}|${CONDITION_KINDS.map((each) => (each === kind ? '' : levelOfTake(take, each))).join('|')}`;
      groups.set(key, [...(groups.get(key) ?? []), index]);
    }
    for (const group of groups.values()) {
      group.forEach((first, at) => {
        for (const second of group.slice(at + 1)) {
          const levels = [first, second].map((index) => levelOfTake(takes[index] as PlannedTake, kind)).sort();
          if (levels[0] !== levels[1]) note(`${kind} ${levels.join(' ')}`, first, second);
        }
      });
    }
  }
  for (const index of left) {
    const ids = candidatesOf(takes[index] as PlannedTake);
    ids.forEach((a, at) => {
      for (const b of ids.slice(at + 1)) note(`candidate ${[a, b].sort().join(' ')}`, index);
    });
  }
  return { counts, ofTake };
}

function lossOf(takeIndex: number, { counts, ofTake }: Links): Omit<Droppable, 'savedS'> {
  let lossComparisons = 0;
  let lostForGood = 0;
  for (const [comparison, own] of ofTake.get(takeIndex) ?? []) {
    const all = counts.get(comparison) as number;
    lossComparisons += own / all;
    if (own === all) {
      lossComparisons += LOST;
      lostForGood++;
    }
  }
  return { takeIndex, lossComparisons, lostForGood };
}
