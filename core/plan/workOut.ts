import { runningTimes } from '../chain/burden.ts';
import type { PlanDraft } from '../domain/plan.ts';
import { DESIGN_KINDS, type Design } from '../domain/plan.ts';
import type { Script } from '../domain/script.ts';
import type { Station } from '../domain/station.ts';
import { type Foreseen, foreseen } from '../fair/foreseen.ts';
import { type BuiltPlan, buildPlan, type PlanContext, plannedTakes } from './buildPlan.ts';
import { type Droppable, dropFirst } from './day/dropFirst.ts';
import { type Day, schedule } from './day/schedule.ts';
import { type Conclusions, conclusions } from './design/conclusions.ts';
import { MOST_CELLS, matrixSize } from './matrix.ts';
import type { SearchProgress } from './order/search.ts';
import { type PlanTime, planTime } from './time.ts';

/** All records that a plan is worked out from. */
export interface WorkOutContext extends PlanContext {
  stations: readonly Station[];
  scripts: readonly Pick<Script, 'id' | 'lengthS'>[];
}

/** A plan worked out: what it comes to, what it lets one conclude, what it makes unfair, and the day. */
export interface WorkedOutPlan {
  cells: number;
  built: BuiltPlan;
  time: PlanTime;
  conclusions: Conclusions;
  foreseen: Foreseen[];
  /** Takes of each design, so that they can be chosen between before any is. */
  takesOfDesign: Record<Design['kind'], number>;
  day: Day | null;
  dropFirst: Droppable[];
}

/** Most takes for which it is worked out what to drop first. */
const MOST_TO_DROP_FROM = 400;

/**
 * Works a plan out. Nothing in it changes the plan.
 * @returns the number of cells alone when they are too many to work out
 */
export function workOutPlan(plan: PlanDraft, context: WorkOutContext, onProgress: SearchProgress = () => undefined): WorkedOutPlan | { tooManyCells: number } {
  const cells = matrixSize(plan.factors);
  if (cells > MOST_CELLS) return { tooManyCells: cells };
  const takesOfDesign = Object.fromEntries(DESIGN_KINDS.map((kind) => [kind, plannedTakes({ ...plan, design: { ...plan.design, kind } }, context).unordered.length]));
  onProgress(0.2);
  const built = buildPlan(plan, context, (share) => onProgress(0.2 + 0.6 * share));
  const lengthS = (id: string) => context.scripts.find((script) => script.id === id)?.lengthS ?? 10;
  const time = planTime(built.takes, plan, lengthS);
  const starts = time.takes.map((take) => take.startS);
  const { startsAtMs } = plan.day;
  const day =
    startsAtMs === null ? null : schedule(built.takes, plan, startsAtMs, { stations: context.stations, lengthS, runningTimeH: runningTimes(context.chains, context.items) });
  onProgress(0.9);
  return {
    cells,
    built,
    time,
    conclusions: conclusions(built.setups),
    foreseen: foreseen(plan, built.setups, built.takes, starts),
    takesOfDesign: takesOfDesign as WorkedOutPlan['takesOfDesign'],
    day,
    dropFirst: built.takes.length <= MOST_TO_DROP_FROM ? dropFirst(built.takes, { ...plan, takeS: (take) => lengthS(take.condition.script) + plan.overheadS }) : [],
  };
}
