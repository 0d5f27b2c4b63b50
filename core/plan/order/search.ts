import { type CostTable, pairCostS, pathCostS } from './changeCost.ts';

/** Tells how far a search is, 0 to 1. */
export type SearchProgress = (share: number) => void;

const MOST_PASSES = 12;
/** More takes than can be recorded in a week are only run through; improving them would take minutes. */
const MOST_IMPROVED = 3000;
/** Takes that are near in the order of a factor are worth trying beside each other; more gains little. */
const LONGEST_SEGMENT = 3;
const NEIGHBOURS = 12;

/**
 * A good order for many takes: run through the matrix factor by factor, the dearest slowest, each group
 * beginning where the one before ended; then single takes and short runs are moved to better places,
 * and runs are turned round, as long as that saves time.
 * @param start take that the order must begin with; null when any may
 */
export function searchOrder(table: CostTable, start: number | null = null, onProgress: SearchProgress = () => undefined): number[] {
  const path = startPath(table, start);
  if (path.length > MOST_IMPROVED) return path;
  const near = nearestTo(table);
  const fixed = start === null ? 0 : 1;
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    const before = pathCostS(table, path);
    moveSegments(table, path, near, fixed);
    turnRuns(table, path, near, fixed);
    onProgress((pass + 1) / MOST_PASSES);
    if (pathCostS(table, path) >= before - 1e-9) break;
  }
  return path;
}

/** Runs through the levels of the factors, dearest slowest, and of some ways to rank factors takes the cheapest. */
function startPath(table: CostTable, start: number | null): number[] {
  const mean = table.seconds.map((own) => own.reduce((sum, value) => sum + value, 0) / Math.max(1, own.length));
  const ranked = table.kinds.map((_kind, k) => k).sort((a, b) => (mean[b] as number) - (mean[a] as number));
  const rankings = [ranked, ...ranked.slice(1).map((_k, at) => exchanged(ranked, at))];
  const all = Array.from({ length: table.size }, (_, take) => take);
  const paths = rankings.map((ranking) => nested(table, all, ranking, start));
  return paths.reduce((best, path) => (pathCostS(table, path) < pathCostS(table, best) ? path : best));
}

function exchanged(ranking: readonly number[], at: number): number[] {
  const other = [...ranking];
  [other[at], other[at + 1]] = [other[at + 1] as number, other[at] as number];
  return other;
}

function nested(table: CostTable, takes: readonly number[], ranking: readonly number[], before: number | null): number[] {
  const [k, ...rest] = ranking;
  if (k === undefined || takes.length <= 1) return [...takes];
  const many = table.kinds.length;
  const levelOf = (take: number) => table.levels[take * many + k] as number;
  const groups = new Map<number, number[]>();
  for (const take of takes) {
    const group = groups.get(levelOf(take));
    if (group) group.push(take);
    else groups.set(levelOf(take), [take]);
  }
  const count = table.levelCounts[k] as number;
  const path: number[] = [];
  let standing = before === null ? null : levelOf(before);
  let last = before;
  while (groups.size > 0) {
    const next = standing !== null && groups.has(standing) ? standing : cheapestLevel(table.seconds[k] as Float64Array, count, standing, [...groups.keys()]);
    const group = nested(table, groups.get(next) as number[], rest, last);
    groups.delete(next);
    path.push(...group);
    last = path.at(-1) as number;
    standing = next;
  }
  return path;
}

function cheapestLevel(seconds: Float64Array, count: number, from: number | null, levels: readonly number[]): number {
  if (from === null) return levels[0] as number;
  return levels.reduce((best, level) => ((seconds[from * count + level] as number) < (seconds[from * count + best] as number) ? level : best));
}

/** For each take those that are cheapest to come from. */
function nearestTo(table: CostTable): Int32Array {
  const n = table.size;
  const many = Math.min(NEIGHBOURS, n - 1);
  const near = new Int32Array(n * many);
  const cost = new Float64Array(n);
  const order = new Int32Array(n);
  for (let to = 0; to < n; to++) {
    for (let from = 0; from < n; from++) {
      cost[from] = from === to ? Number.POSITIVE_INFINITY : pairCostS(table, from, to);
      order[from] = from;
    }
    selectSmallest(order, cost, many);
    near.set(order.subarray(0, many), to * many);
  }
  return near;
}

/** Brings the `many` entries of least cost to the front of `order`. */
function selectSmallest(order: Int32Array, cost: Float64Array, many: number): void {
  for (let at = 0; at < many; at++) {
    let least = at;
    for (let other = at + 1; other < order.length; other++) if ((cost[order[other] as number] as number) < (cost[order[least] as number] as number)) least = other;
    const kept = order[at] as number;
    order[at] = order[least] as number;
    order[least] = kept;
  }
}

/** Cost of the step from `path[at]` to `path[at + 1]`; nothing beyond the ends. */
function step(table: CostTable, path: readonly number[], at: number): number {
  return at < 0 || at + 1 >= path.length ? 0 : pairCostS(table, path[at] as number, path[at + 1] as number);
}

const between = (table: CostTable, from: number | undefined, to: number | undefined) => (from === undefined || to === undefined ? 0 : pairCostS(table, from, to));

function placesOf(path: readonly number[]): Int32Array {
  const places = new Int32Array(path.length);
  path.forEach((take, at) => {
    places[take] = at;
  });
  return places;
}

/** Moves runs of one to three takes behind a take that they are cheap to come from, where that saves time. */
function moveSegments(table: CostTable, path: number[], near: Int32Array, fixed: number): void {
  const many = near.length / table.size;
  let places = placesOf(path);
  for (let take = 0; take < table.size; take++) {
    for (let length = 1; length <= LONGEST_SEGMENT; length++) {
      const from = places[take] as number;
      if (from < fixed || from + length > path.length) continue;
      const end = from + length - 1;
      const gone = step(table, path, from - 1) + step(table, path, end) - between(table, path[from - 1], path[end + 1]);
      let bestGain = 1e-9;
      let bestAfter = -1;
      for (let each = 0; each < many; each++) {
        const after = places[near[take * many + each] as number] as number;
        if (after >= from - 1 && after <= end) continue;
        const gain = gone - between(table, path[after], path[from]) - between(table, path[end], path[after + 1]) + step(table, path, after);
        if (gain > bestGain) {
          bestGain = gain;
          bestAfter = after;
        }
      }
      if (bestAfter < 0) continue;
      const segment = path.splice(from, length);
      path.splice(bestAfter > from ? bestAfter - length + 1 : bestAfter + 1, 0, ...segment);
      places = placesOf(path);
    }
  }
}

/** Turns a run of takes round where that saves time; costs differ with direction, so the run is summed both ways. */
function turnRuns(table: CostTable, path: number[], near: Int32Array, fixed: number): void {
  const many = near.length / table.size;
  const longest = 60;
  const places = placesOf(path);
  for (let take = 0; take < table.size; take++) {
    for (let each = 0; each < many; each++) {
      const first = (places[near[take * many + each] as number] as number) + 1;
      const last = places[take] as number;
      if (first < fixed || first >= last || last - first > longest) continue;
      let change = between(table, path[first - 1], path[last]) + between(table, path[first], path[last + 1]) - step(table, path, first - 1) - step(table, path, last);
      for (let at = first; at < last; at++) change += pairCostS(table, path[at + 1] as number, path[at] as number) - step(table, path, at);
      if (change >= -1e-9) continue;
      for (let a = first, b = last; a < b; a++, b--) [path[a], path[b]] = [path[b] as number, path[a] as number];
      for (let at = first; at <= last; at++) places[path[at] as number] = at;
    }
  }
}
