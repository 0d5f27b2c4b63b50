import { type Cell, type Draw, drawCell, type Own, wholeDraw } from './drawnCell.ts';
import { meanValue, type Reckoned, reckon } from './reckoned.ts';

/** How values are scattered that a model reckons. */
export interface Scattered {
  /** By candidate, what it comes to as things are. */
  asIs: Float64Array;
  /** By candidate, how far it moves when a take, or a listener, is there once more. */
  byTake: Float64Array[];
  byListener: Float64Array[];
  /** What is left of the cells once the model has told its parts. */
  df: number;
}

/**
 * Where nearly each condition was recorded once, drawing takes would leave a model with hardly more values than parts, which wavers far
 * more than the one of all values. There all takes stay, and what the model leaves of a value is moved by how often its take was drawn, once
 * less (a bootstrap of residuals by take: C. F. J. Wu, Jackknife, bootstrap and other resampling methods in regression analysis, 1986). Means
 * of what least squares reckon are sums over values, so that what each take and each listener do is worked out once for all draws.
 * @returns null where nothing is left to move
 */
export function scatteredOf(own: readonly Own[], reckoned: Reckoned, takes: number, listeners: number): Scattered | null {
  const { model, cells } = reckoned.ground;
  const df = cells.length - (model?.parts ?? 0);
  if (!model || df < 1) return null;
  const whole = wholeDraw(takes, listeners);
  for (const each of own) for (let cell = 0; cell < each.cells.length; cell++) drawCell(each, cell, whole, true);
  const come = () => {
    for (const each of own) each.times.fill(1);
    const into = new Float64Array(own.length);
    reckon(own, reckoned, meanValue, into);
    return into;
  };
  const asIs = come();
  const left = leftOf(own, reckoned, Math.sqrt(cells.length / df));
  const moved = (placesOf: (cell: Cell) => Int32Array, count: number): Float64Array[] => {
    const by = own.map(() => new Float64Array(count));
    for (let at = 0; at < count; at++) {
      let any = false;
      for (const [candidate, { cells: all, values }] of own.entries()) {
        for (const [cell, each] of all.entries()) {
          const places = placesOf(each);
          values[cell] = 0;
          for (let sample = 0; sample < places.length; sample++) if (places[sample] === at) values[cell]! += left[candidate]?.[cell]?.[sample] as number;
          any ||= values[cell] !== 0;
        }
      }
      if (any) for (const [candidate, value] of come().entries()) (by[candidate] as Float64Array)[at] = Number.isNaN(value) ? 0 : value;
    }
    return by;
  };
  return { asIs, byTake: moved(({ take }) => take, takes), byListener: moved(({ listener }) => listener, listeners), df };
}

/** By candidate, cell and value what the model leaves of it, by its weight in the cell. The model is the one fitted last. */
function leftOf(own: readonly Own[], { ground: { model, cells } }: Reckoned, larger: number): Float64Array[][] {
  let at = 0;
  return own.map((each) =>
    each.cells.map(({ value, weight }) => {
      const { candidate, condition } = cells[at++] as (typeof cells)[number];
      const told = model?.at(candidate, condition) ?? Number.NaN;
      const all = weight.reduce((sum, one) => sum + one, 0);
      return value.map((one, sample) => (Number.isNaN(told) ? 0 : (larger * (weight[sample] as number) * (one - told)) / all));
    }),
  );
}

/** What each candidate comes to in a draw. */
export function scatter({ asIs, byTake, byListener }: Scattered, { takes, listeners }: Draw, into: Float64Array): void {
  for (let candidate = 0; candidate < into.length; candidate++) {
    const [ofTakes, ofListeners] = [byTake[candidate] as Float64Array, byListener[candidate] as Float64Array];
    let value = asIs[candidate] as number;
    for (let at = 0; at < ofTakes.length; at++) value += (ofTakes[at] as number) * ((takes[at] as number) - 1);
    for (let at = 0; at < ofListeners.length; at++) value += (ofListeners[at] as number) * ((listeners[at] as number) - 1);
    into[candidate] = value;
  }
}
