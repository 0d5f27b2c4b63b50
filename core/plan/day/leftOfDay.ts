import type { PlanDraft } from '../../domain/plan.ts';
import type { Take } from '../../domain/take.ts';
import { quickest } from '../order/orderTakes.ts';
import { planTime } from '../time.ts';
import { type Droppable, dropFirst } from './dropFirst.ts';

/** What is left of a day, from where one stands. */
export interface LeftOfDay {
  /** Takes that are still planned. */
  count: number;
  /** By the plan's times, from now to the end of the last one. */
  leftS: number;
  /** How much later than the day's end that is; negative is time to spare, null where no end is planned. */
  lateS: number | null;
  /** What to leave out first, with what is lost. */
  dropFirst: { take: Take; loss: Droppable } | null;
  /** A quicker order of what is left, where there is one. */
  quicker: { takeIds: string[]; savesS: number } | null;
}

/** With more takes than this nobody waits for an order while standing in the rain. */
const MOST_WORKED_OUT = 250;
const LEAST_SAVED_S = 30;

/**
 * What is left, how late that makes it, what may be dropped first, and in which order the rest is quickest from the setup that
 * stands now. Takes that were done count for what they give: what they gave already need not be recorded again.
 * @param lengthS length of a script in seconds, by script id
 */
export function leftOfDay(
  takes: readonly Take[],
  current: Take,
  plan: Pick<PlanDraft, 'changeTimesS' | 'changeExceptions' | 'overheadS' | 'day' | 'order'>,
  lengthS: (scriptId: string) => number,
  nowMs: number,
): LeftOfDay {
  const left = takes.filter(({ status, id }) => status === 'planned' && id !== current.id);
  const from = [current, ...left];
  const timeOf = (order: readonly Take[]) => {
    const { takes: times, totalS } = planTime(order, plan, lengthS);
    return totalS - (current.status === 'planned' ? (times[0]?.changeS ?? 0) : (times[0]?.changeS ?? 0) + (times[0]?.takeS ?? 0));
  };
  const leftS = timeOf(from);
  const { endsAtMs } = plan.day;
  const rest = { count: left.length + (current.status === 'planned' ? 1 : 0), leftS, lateS: endsAtMs === null ? null : (nowMs - endsAtMs) / 1000 + leftS };
  if (left.length < 2 || left.length > MOST_WORKED_OUT) return { ...rest, dropFirst: null, quicker: null };
  const counted = takes.filter(({ status }) => status !== 'skipped').slice(-MOST_WORKED_OUT);
  const [loss] = dropFirst(counted, { ...plan, takeS: (take) => lengthS(take.condition.script) + plan.overheadS }, 1, (index) => left.includes(counted[index] as Take));
  const ordered = quickest(left, plan, current, () => undefined) as Take[];
  const savesS = leftS - timeOf([current, ...ordered]);
  return {
    ...rest,
    dropFirst: loss ? { take: counted[loss.takeIndex] as Take, loss } : null,
    quicker: savesS >= LEAST_SAVED_S ? { takeIds: ordered.map(({ id }) => id), savesS } : null,
  };
}
