import type { FactorKind } from '../../domain/factor.ts';
import type { OrderRules } from '../../domain/plan.ts';
import { levelOfTake, type PlannedTake } from '../gather.ts';
import { orderBoundS } from './bound.ts';
import { type ChangeCosts, costTable, pathCostS } from './changeCost.ts';
import { EXACT_UP_TO, exactOrder } from './exact.ts';
import { pinnedPlaces, withPinned } from './pins.ts';
import { type SearchProgress, searchOrder } from './search.ts';

/** What an order has to keep to, besides being quick. */
export interface OrderWishes extends ChangeCosts {
  order: OrderRules;
  /** Stations that need daylight. */
  daylightStationIds: ReadonlySet<string>;
  /** The day begins before sunrise there, so they come last rather than first. */
  beforeSunrise?: boolean;
}

export interface TakeOrder {
  takes: PlannedTake[];
  /** Change time of this order, without rigging for the first take. */
  costS: number;
  /** No order of these takes can have less, whatever rules are given up. */
  boundS: number;
  /** Whether this is the least that there is under the rules. */
  exact: boolean;
}

/**
 * Takes in the order of least change time under the plan's rules: exact up to 12 takes, beyond by
 * search, with a bound that says how far off the best it can be at most. Daylight blocks and
 * counterbalancing may cost time; takes locked to a place stand there.
 */
export function orderTakes(takes: readonly PlannedTake[], wishes: OrderWishes, onProgress: SearchProgress = () => undefined): TakeOrder {
  const table = costTable(takes, wishes);
  const pinned = pinnedPlaces(takes, wishes.order);
  const free = takes.filter((take) => !pinned.has(take));
  const blocks = wishes.order.blockedBy === 'daylight' ? daylightBlocks(free, wishes) : [free];
  const costs = wishes.order.blockedBy === 'station' ? stationsInOneVisit(wishes) : wishes;
  const ordered: PlannedTake[] = [];
  blocks.forEach((block, index) => {
    const tell: SearchProgress = (share) => onProgress((index + share) / blocks.length);
    ordered.push(...(wishes.order.counterbalanced ? counterbalanced(block, costs) : quickest(block, costs, ordered.at(-1) ?? null, tell)));
  });
  const placed = withPinned(ordered, pinned);
  const place = new Map(takes.map((take, index) => [take, index]));
  const path = placed.map((take) => place.get(take) as number);
  const exact = takes.length <= EXACT_UP_TO && pinned.size === 0 && blocks.length === 1 && !wishes.order.counterbalanced;
  return { takes: placed, costS: pathCostS(table, path), boundS: orderBoundS(table), exact };
}

/** Dearer than all other changes of a day, so that no order leaves a station to come back. */
const AWAY_S = 1e7;

function stationsInOneVisit(costs: ChangeCosts): ChangeCosts {
  return {
    changeTimesS: { ...costs.changeTimesS, station: costs.changeTimesS.station + AWAY_S },
    changeExceptions: costs.changeExceptions.map((each) => (each.kind === 'station' ? { ...each, seconds: each.seconds + AWAY_S } : each)),
  };
}

function daylightBlocks(takes: readonly PlannedTake[], { daylightStationIds, beforeSunrise }: OrderWishes): PlannedTake[][] {
  const lit = takes.filter((take) => daylightStationIds.has(take.condition.station));
  const others = takes.filter((take) => !daylightStationIds.has(take.condition.station));
  return (beforeSunrise ? [others, lit] : [lit, others]).filter((block) => block.length > 0);
}

/** The quickest order of some takes, going on from the one before them. */
export function quickest(takes: readonly PlannedTake[], costs: ChangeCosts, before: PlannedTake | null, onProgress: SearchProgress): PlannedTake[] {
  const all = before ? [before, ...takes] : [...takes];
  const table = costTable(all, costs);
  const start = before ? 0 : null;
  const path = all.length <= EXACT_UP_TO ? exactOrder(table, start) : searchOrder(table, start, onProgress);
  return path.map((at) => all[at] as PlannedTake).filter((take) => take !== before || takes.includes(take));
}

/**
 * Lets each candidate go first in turn: the takes fall into blocks by the dearest other factor that
 * varies, candidates follow one another within a block, and every block begins with the next one.
 */
function counterbalanced(takes: readonly PlannedTake[], costs: ChangeCosts): PlannedTake[] {
  const table = costTable(takes, costs);
  const candidates = [...new Set(takes.map((take) => levelOfTake(take, 'candidate')))];
  const mean = (kind: FactorKind) => {
    const own = table.seconds[table.kinds.indexOf(kind)] as Float64Array;
    return own.reduce((sum, value) => sum + value, 0) / own.length;
  };
  const blockKind = table.kinds.filter((kind) => kind !== 'candidate').sort((a, b) => mean(b) - mean(a))[0];
  if (!blockKind || candidates.length < 2) return quickest(takes, costs, null, () => undefined);
  const outline = quickest(takes, costs, null, () => undefined);
  const blocks = [...new Set(outline.map((take) => levelOfTake(take, blockKind)))];
  const ordered: PlannedTake[] = [];
  blocks.forEach((level, index) => {
    for (let turn = 0; turn < candidates.length; turn++) {
      const candidate = candidates[(index + turn) % candidates.length];
      const group = takes.filter((take) => levelOfTake(take, blockKind) === level && levelOfTake(take, 'candidate') === candidate);
      ordered.push(...quickest(group, costs, ordered.at(-1) ?? null, () => undefined));
    }
  });
  return ordered;
}
