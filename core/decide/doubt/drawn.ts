import type { Criterion } from '../../domain/criterion.ts';
import { oneValue } from '../aggregate.ts';
import { groundOf } from '../like/ground.ts';
import { type Cell, type Draw, drawCell, isHalf, type Own, ownOf } from './drawnCell.ts';
import { type ListenerSpread, listenerSpread } from './listenerSpread.ts';
import { meanValue, middleValue, type Reckoned, reckon, reckonedOf } from './reckoned.ts';
import type { DrawnFrom, DrawnSample } from './samples.ts';
import { type Scattered, scatter, scatteredOf } from './scattered.ts';

/** What a criterion comes to in a draw: for each candidate a value, NaN for none, and how far it is over the limit at worst; above 0 breaks it. */
export interface CriterionDrawn {
  values: Float64Array;
  overLimit: Float64Array;
}

/** A criterion laid out for drawing. */
export interface Layout {
  own: Own[];
  aggregation: Criterion['aggregation'];
  /** Makes one value of those of all conditions, whose order it may change. */
  toOne(values: Float64Array): number;
  over: ((value: number) => number) | null;
  /** How much was recorded of each candidate against the one of whom most was. */
  coverage: number[];
  /** Whether each candidate has a value that can be held against the others, and has it at all conditions that are judged. */
  known: boolean[];
  complete: boolean[];
  takes: number;
  /** Where values are missing, with what they are reckoned; null where none are. */
  reckoned: Reckoned | null;
  /** What scatters values where a model reckons what is missing; null where drawing takes does. */
  scattered: Scattered | null;
  /** Of a criterion that was heard at one take only: what its listeners disagree by, which stands for drawing them anew. */
  spread: ListenerSpread | null;
}

/** Criteria laid out by candidate and condition, once for all draws. */
export function layoutsOf({ criteria, candidateIds, samples, takeIds, listeners }: DrawnFrom): Layout[] {
  return criteria.map((criterion, at) => {
    const all = samples[at] ?? [];
    const drawnTakes = new Set(all.flatMap(({ take }) => take ?? [])).size;
    const drawnListeners = new Set(all.flatMap(({ listener }) => listener ?? [])).size;
    // Listeners are drawn where several takes were heard; a criterion that rests on one take has nothing to draw from.
    const cellOf = (shared: boolean, own: readonly DrawnSample[]): Cell => {
      const sorted = [...own].sort((a, b) => a.value - b.value);
      return {
        shared,
        value: Float64Array.from(sorted, ({ value }) => value),
        weight: Float64Array.from(sorted, ({ weight }) => weight),
        take: Int32Array.from(sorted, ({ take }) => (take === null || drawnTakes < 2 ? takeIds.length : take)),
        listener: Int32Array.from(sorted, ({ listener }) => (listener === null || drawnListeners < 2 || drawnTakes < 2 ? listeners.length : listener)),
      };
    };
    const byCandidate = candidateIds.map(() => new Map<string, DrawnSample[]>());
    for (const sample of all) {
      const cells = byCandidate[sample.candidate] as Map<string, DrawnSample[]>;
      const cell = cells.get(sample.condition);
      if (cell) cell.push(sample);
      else cells.set(sample.condition, [sample]);
    }
    const ground = groundOf(byCandidate.map((cells) => [...cells.keys()]));
    const judged = new Set(ground.judged.map((at) => ground.keys[at]));
    const { dealbreaker, aggregation } = criterion;
    const own = byCandidate.map((cells) => ownOf([...cells].map(([key, values]) => cellOf(judged.has(key), values))));
    const reckoned = ground.model ? reckonedOf(ground) : null;
    return {
      own,
      aggregation,
      toOne: aggregation === 'mean' ? meanValue : aggregation === 'median' ? middleValue : (values) => oneValue(criterion)(Array.from(values)),
      over: dealbreaker ? (value) => (dealbreaker.side === 'below' ? dealbreaker.limit - value : value - dealbreaker.limit) : null,
      coverage: ground.coverage,
      known: ground.known,
      complete: ground.complete,
      reckoned,
      scattered: reckoned && aggregation === 'mean' ? scatteredOf(own, reckoned, takeIds.length, listeners.length) : null,
      takes: drawnTakes,
      spread: drawnTakes < 2 && drawnListeners > 1 ? listenerSpread(all, candidateIds.length, listeners.length) : null,
    };
  });
}

/** What a criterion comes to in a draw. */
export function drawnOf(layout: Layout, draw: Draw, into: CriterionDrawn): void {
  const scattered = draw.leavesOut ? null : layout.scattered;
  for (const [candidate, own] of layout.own.entries()) {
    let over = Number.NEGATIVE_INFINITY;
    // What is scattered needs no values of its own, but where a limit looks at them.
    if (!scattered || layout.over) for (let cell = 0; cell < own.cells.length; cell++) drawCell(own, cell, draw, layout.aggregation === 'mean');
    if (layout.over) for (let cell = 0; cell < own.cells.length; cell++) if ((own.times[cell] as number) > 0) over = Math.max(over, layout.over(own.values[cell] as number));
    if (!layout.reckoned) into.values[candidate] = oneOf(own, layout);
    into.overLimit[candidate] = over;
  }
  if (scattered) scatter(scattered, draw, into.values);
  else if (layout.reckoned) reckon(layout.own, layout.reckoned, layout.toOne, into.values);
}

function oneOf(own: Own, { aggregation, toOne }: Layout): number {
  if (aggregation === 'mean') return meanOf(own);
  return aggregation === 'median' ? middleOf(own) : worstOf(own, toOne);
}

/** The mean of the conditions that are shared, by how often each is there; NaN where none is. */
function meanOf({ cells, values, times }: Own): number {
  let [sum, whole] = [0, 0];
  for (let cell = 0; cell < cells.length; cell++) {
    const own = (cells[cell] as Cell).shared ? (times[cell] as number) : 0;
    if (own === 0) continue;
    sum += own * (values[cell] as number);
    whole += own;
  }
  return whole === 0 ? Number.NaN : sum / whole;
}

/** The middle of the conditions that are shared, by how often each is there; NaN where none is. */
function middleOf({ cells, values, times, order }: Own): number {
  // Nearly in order already: each goes down to its place.
  for (let at = 1; at < order.length; at++) {
    const cell = order[at] as number;
    let to = at;
    while (to > 0 && (values[order[to - 1] as number] as number) > (values[cell] as number)) {
      order[to] = order[to - 1] as number;
      to--;
    }
    order[to] = cell;
  }
  let whole = 0;
  for (let cell = 0; cell < cells.length; cell++) if ((cells[cell] as Cell).shared) whole += times[cell] as number;
  let below = 0;
  let lower = Number.NaN;
  for (const cell of order) {
    const own = (cells[cell] as Cell).shared ? (times[cell] as number) : 0;
    if (own === 0) continue;
    const value = values[cell] as number;
    if (!Number.isNaN(lower)) return (lower + value) / 2;
    below += own;
    if (isHalf(below, whole)) lower = value;
    else if (below > whole / 2) return value;
  }
  return lower;
}

/** The worst of the conditions that are shared and there; NaN where none is. */
function worstOf({ cells, values, times }: Own, worst: (values: Float64Array) => number): number {
  const there = values.filter((_, cell) => (cells[cell] as Cell).shared && (times[cell] as number) > 0);
  return there.length === 0 ? Number.NaN : worst(there);
}
