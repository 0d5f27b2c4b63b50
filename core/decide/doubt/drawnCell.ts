/** How often takes, and listeners, are there in a draw; as they are, each once. The last number of each is 1, for what is not drawn. */
export interface Draw {
  /** Takes are left out for good, not drawn: what is not there is not scattered, but missing. */
  leavesOut?: boolean;
  takes: Float64Array;
  listeners: Float64Array;
}

/** Everything once, as it is. */
export const wholeDraw = (takes: number, listeners: number): Draw => ({ takes: new Float64Array(takes + 1).fill(1), listeners: new Float64Array(listeners + 1).fill(1) });

/** Values of one candidate under one condition, from the smallest on. */
export interface Cell {
  shared: boolean;
  value: Float64Array;
  weight: Float64Array;
  /** Places in a draw. */
  take: Int32Array;
  listener: Int32Array;
}

/** What one candidate has on one criterion, with room for what is drawn, so that nothing is made anew in thousands of draws. */
export interface Own {
  cells: Cell[];
  /** By cell what it comes to in a draw, and how often it is there; 0 is not at all. */
  values: Float64Array;
  times: Float64Array;
  /** Cells by value as they were in the last draw: the next one is nearly so. */
  order: Int32Array;
}

export function ownOf(cells: Cell[]): Own {
  return { cells, values: new Float64Array(cells.length), times: new Float64Array(cells.length), order: Int32Array.from(cells.keys()) };
}

/** The mean of a condition's values by their weights, or the middle one, and how often the condition is there. */
export function drawCell(own: Own, cell: number, { takes, listeners }: Draw, mean: boolean): void {
  const { value, weight, take, listener } = own.cells[cell] as Cell;
  // Most conditions were recorded once.
  if (value.length === 1) {
    own.times[cell] = (takes[take[0] as number] as number) * (listeners[listener[0] as number] as number);
    own.values[cell] = value[0] as number;
    return;
  }
  let [times, whole, sum] = [0, 0, 0];
  for (let at = 0; at < value.length; at++) {
    const each = (takes[take[at] as number] as number) * (listeners[listener[at] as number] as number);
    times += each;
    whole += each * (weight[at] as number);
    sum += each * (weight[at] as number) * (value[at] as number);
  }
  own.times[cell] = times / value.length;
  if (mean) {
    own.values[cell] = sum / whole;
    return;
  }
  let below = 0;
  let lower = Number.NaN;
  for (let at = 0; at < value.length; at++) {
    const each = (takes[take[at] as number] as number) * (listeners[listener[at] as number] as number) * (weight[at] as number);
    if (each === 0) continue;
    const here = value[at] as number;
    if (!Number.isNaN(lower)) {
      own.values[cell] = (lower + here) / 2;
      return;
    }
    below += each;
    own.values[cell] = here;
    if (isHalf(below, whole)) lower = here;
    else if (below > whole / 2) return;
  }
}

export const isHalf = (below: number, whole: number) => Math.abs(below - whole / 2) <= 1e-9 * whole;
