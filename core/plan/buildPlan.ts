import type { Chain } from '../domain/chain.ts';
import { conditionKey, type Setup } from '../domain/factor.ts';
import type { Item } from '../domain/item.ts';
import type { PlanDraft } from '../domain/plan.ts';
import type { Station } from '../domain/station.ts';
import { isDark, sunTimes } from './day/sun.ts';
import { chooseSetups } from './design/chooseSetups.ts';
import { gatherTakes, type PlannedTake } from './gather.ts';
import { tickedLevels } from './matrix.ts';
import { orderTakes, type TakeOrder } from './order/orderTakes.ts';
import type { SearchProgress } from './order/search.ts';
import { type Together, togetherGroups } from './together.ts';

/** Records that a plan draws on, besides itself. */
export interface PlanContext {
  chains: readonly Pick<Chain, 'id' | 'name' | 'links' | 'split'>[];
  items: readonly Item[];
  stations: readonly Pick<Station, 'id' | 'needsDaylight' | 'latitudeDeg' | 'longitudeDeg'>[];
}

export interface BuiltPlan extends TakeOrder {
  setups: Setup[];
  together: Together;
  /** Conditions recorded, each with one or more candidates. */
  conditions: number;
}

/** Takes of a plan before they are put into order. */
export function plannedTakes(plan: PlanDraft, context: PlanContext): Omit<BuiltPlan, keyof TakeOrder> & { unordered: PlannedTake[] } {
  const items = new Map(context.items.map((item) => [item.id, item]));
  const ticked = new Set(tickedLevels(plan.factors, 'candidate').map((level) => level.id));
  const chains = context.chains.filter((chain) => ticked.has(chain.id));
  const together = plan.together ? togetherGroups(chains, items, plan.togetherLimits, levelsAtOnce(plan)) : { groups: chains.map((chain) => [chain.id]), bars: [] };
  const setups = chooseSetups(plan, plan.together && together.groups.length <= 1);
  const once = gatherTakes(setups, together.groups, plan.atOnce);
  const unordered = once.flatMap((take) => Array.from({ length: plan.repeats }, () => ({ ...take })));
  return { setups, together, conditions: new Set(setups.map(conditionKey)).size, unordered };
}

/** How many of each candidate one take carries: one for each combination of levels that are recorded at one moment. */
export function levelsAtOnce({ atOnce, factors }: Pick<PlanDraft, 'atOnce' | 'factors'>): number {
  return atOnce.reduce((product, kind) => product * Math.max(1, tickedLevels(factors, kind).length), 1);
}

/** A plan as the takes that it comes to, in the order in which they are to be done. */
export function buildPlan(plan: PlanDraft, context: PlanContext, onProgress?: SearchProgress): BuiltPlan {
  const { unordered, ...built } = plannedTakes(plan, context);
  const lit = context.stations.filter((station) => station.needsDaylight);
  const wishes = { ...plan, daylightStationIds: new Set(lit.map((station) => station.id)), beforeSunrise: startsInTheDark(plan, lit) };
  return { ...built, ...orderTakes(unordered, wishes, onProgress) };
}

/** Whether the day begins before the sun is up at a station that needs it. */
function startsInTheDark({ day }: PlanDraft, lit: PlanContext['stations']): boolean {
  const { startsAtMs } = day;
  return (
    startsAtMs !== null &&
    lit.some(({ latitudeDeg, longitudeDeg }) => {
      if (latitudeDeg === null || longitudeDeg === null) return false;
      return isDark(startsAtMs, latitudeDeg, longitudeDeg) && (sunTimes(startsAtMs, latitudeDeg, longitudeDeg).sunriseMs ?? 0) > startsAtMs;
    })
  );
}
