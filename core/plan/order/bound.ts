import { type CostTable, pairCostS } from './changeCost.ts';

/**
 * A time that no order of the takes can be under, in seconds of changes: the largest of three bounds.
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
