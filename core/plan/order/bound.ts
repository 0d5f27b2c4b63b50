import { type CostTable, pairCostS, pathCostS } from './changeCost.ts';
import { exactOrder } from './exact.ts';

/**
 * A time that no order of the takes can be under, in seconds of changes: the largest of four bounds.
 *
 * Layers: with the factors sorted by their cheapest change c1 >= c2 >= ..., the first j of them stand
 * in D_j different combinations, so at least D_j - 1 steps change one of them, and such a step costs
 * c_j or more; summed in layers, sum over j of (c_j - c_(j+1)) (D_j - 1). A full matrix run through
 * with one change a step meets it exactly.
 *
 * Layers of levelled costs: a cost that differs with direction is levelled by a price for standing at
 * each level, which along a whole day only counts for the first and the last; so the same sum with
 * levelled costs, less the spread of the prices, is a bound too.
 *
 * Layers under a walk: the dearest factor must be walked through all of its levels, for which the
 * shortest walk W is worked out. An order that changes it m times pays at least W and m times its
 * cheapest change for it, and of the steps of the other layers m at most go along with it; the bound is
 * the least over m.
 *
 * Arrivals: every take but the first is reached by at least its cheapest arrival.
 */
export function orderBoundS(table: CostTable): number {
  const levelled = table.seconds.map((own, k) => levelledCosts(own, table.levelCounts[k] as number));
  const spread = levelled.reduce((sum, each) => sum + each.spread, 0);
  return Math.max(
    layerBoundS(table, table.seconds),
    layerBoundS(
      table,
      levelled.map((each) => each.seconds),
    ) - spread,
    walkBoundS(table),
    arrivalBoundS(table),
  );
}

/** Costs with a price on each level that evens out what it costs to leave and to reach it on average. */
function levelledCosts(seconds: Float64Array, count: number): { seconds: Float64Array; spread: number } {
  const price = new Float64Array(count);
  for (let a = 0; a < count; a++)
    for (let b = 0; b < count; b++) price[a] = (price[a] as number) + ((seconds[b * count + a] as number) - (seconds[a * count + b] as number)) / (2 * count);
  const even = seconds.map((value, at) => value + (price[Math.floor(at / count)] as number) - (price[at % count] as number));
  return { seconds: even, spread: Math.max(...price) - Math.min(...price) };
}

function layerBoundS(table: CostTable, seconds: readonly Float64Array[]): number {
  const { kinds, levels, size } = table;
  const cheapest = seconds.map((own) => cheapestChange(own));
  // A levelled cost under zero would let a step cost less than one of its changes; then this bound says nothing.
  if (cheapest.some((cost) => cost < 0)) return 0;
  const order = kinds.map((_kind, k) => k).sort((a, b) => (cheapest[b] as number) - (cheapest[a] as number));
  let bound = 0;
  const combination = new Array<string>(size).fill('');
  order.forEach((k, layer) => {
    for (let take = 0; take < size; take++) combination[take] += `${levels[take * kinds.length + k]},`;
    const next = order[layer + 1];
    const step = (cheapest[k] as number) - (next === undefined ? 0 : (cheapest[next] as number));
    bound += step * (new Set(combination).size - 1);
  });
  return bound;
}

/** Up to so many levels the shortest walk through them is worked out. */
const MOST_WALKED = 12;

function walkBoundS(table: CostTable): number {
  const { kinds, levels, levelCounts, seconds, size } = table;
  const mean = seconds.map((own) => own.reduce((sum, value) => sum + value, 0) / Math.max(1, own.length));
  const dearest = mean.indexOf(Math.max(...mean));
  const count = levelCounts[dearest];
  if (count === undefined || count > MOST_WALKED) return 0;
  const walkS = shortestWalkS(seconds[dearest] as Float64Array, count);
  const leastS = cheapestChange(seconds[dearest] as Float64Array);
  const others = kinds.map((_kind, k) => k).filter((k) => k !== dearest);
  const cheapest = (k: number) => cheapestChange(seconds[k] as Float64Array);
  others.sort((a, b) => cheapest(b) - cheapest(a));
  const combination = Array.from({ length: size }, (_, take) => `${levels[take * kinds.length + dearest]},`);
  const layers = others.map((k, layer) => {
    for (let take = 0; take < size; take++) combination[take] += `${levels[take * kinds.length + k]},`;
    const next = others[layer + 1];
    return { step: cheapest(k) - (next === undefined ? 0 : cheapest(next)), steps: new Set(combination).size - 1 };
  });
  let bound = Number.POSITIVE_INFINITY;
  for (let m = count - 1; m < size; m++) {
    const rest = layers.reduce((sum, { step, steps }) => sum + step * Math.max(0, steps - m), 0);
    bound = Math.min(bound, Math.max(walkS, m * leastS) + rest);
  }
  return Number.isFinite(bound) ? bound : 0;
}

/** The shortest walk that meets every level, going through others where that is cheaper. */
function shortestWalkS(seconds: Float64Array, count: number): number {
  const between = Float64Array.from(seconds);
  for (let via = 0; via < count; via++) {
    for (let a = 0; a < count; a++) {
      for (let b = 0; b < count; b++) {
        const round = (between[a * count + via] as number) + (between[via * count + b] as number);
        if (round < (between[a * count + b] as number)) between[a * count + b] = round;
      }
    }
  }
  const levels: CostTable = { kinds: ['other'], levels: Int32Array.from({ length: count }, (_, level) => level), levelCounts: [count], seconds: [between], size: count };
  return pathCostS(levels, exactOrder(levels));
}

/** The least entry beside the diagonal. */
function cheapestChange(seconds: Float64Array): number {
  const count = Math.sqrt(seconds.length);
  return seconds.reduce((least, value, at) => (at % (count + 1) === 0 ? least : Math.min(least, value)), Number.POSITIVE_INFINITY);
}

function arrivalBoundS(table: CostTable): number {
  let sum = 0;
  let dearest = 0;
  for (let to = 0; to < table.size; to++) {
    let least = Number.POSITIVE_INFINITY;
    for (let from = 0; from < table.size; from++) if (from !== to) least = Math.min(least, pairCostS(table, from, to));
    if (least === Number.POSITIVE_INFINITY) continue;
    sum += least;
    dearest = Math.max(dearest, least);
  }
  return sum - dearest;
}
