import type { Ground } from '../like/ground.ts';

/** The cells of one candidate as they were drawn: what each comes to, and how often it is there. */
interface DrawnCells {
  values: Float64Array;
  times: Float64Array;
}

/** Values of which some are missing, which are reckoned anew in every draw; with room for that. */
export interface Reckoned {
  ground: Ground;
  /** By cell, in the order of the model, what it comes to in a draw and how often it is there. */
  values: Float64Array;
  times: Float64Array;
  /** Of one candidate, under all that is judged. */
  under: Float64Array;
}

export function reckonedOf(ground: Ground): Reckoned {
  const { length } = ground.cells;
  return { ground, values: new Float64Array(length), times: new Float64Array(length), under: new Float64Array(ground.judged.length) };
}

/**
 * What each candidate comes to in a draw where some are missing: what was not recorded, or not drawn, is reckoned from what was.
 * @param own of each candidate, its cells as they were drawn, in the order of the model
 * @param toOne makes one value of those of all conditions, whose order it may change
 * @param into one a candidate, NaN where nothing can be told
 */
export function reckon(own: readonly DrawnCells[], { ground, values, times, under }: Reckoned, toOne: (values: Float64Array) => number, into: Float64Array): void {
  const { model, judged, cellAt, known } = ground;
  let cell = 0;
  for (const each of own)
    for (let at = 0; at < each.values.length; at++, cell++) {
      values[cell] = each.values[at] as number;
      times[cell] = each.times[at] as number;
    }
  model?.fit(values, times);
  for (let candidate = 0; candidate < own.length; candidate++) {
    into[candidate] = Number.NaN;
    if (!model || !known[candidate]) continue;
    let told = true;
    for (let at = 0; at < judged.length && told; at++) {
      const condition = judged[at] as number;
      const place = (cellAt[candidate] as Int32Array)[condition] as number;
      under[at] = place >= 0 && (times[place] as number) > 0 ? (values[place] as number) : model.at(candidate, condition);
      told = !Number.isNaN(under[at]);
    }
    if (told) into[candidate] = toOne(under);
  }
}

/** Mean of values. */
export function meanValue(values: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < values.length; at++) sum += values[at] as number;
  return sum / values.length;
}

/** Middle of values, which are put in order. */
export function middleValue(values: Float64Array): number {
  values.sort();
  const half = values.length >> 1;
  return values.length % 2 === 1 ? (values[half] as number) : ((values[half - 1] as number) + (values[half] as number)) / 2;
}
