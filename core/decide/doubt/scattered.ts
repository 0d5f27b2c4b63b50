import { type Draw, drawCell, type Own } from './drawnCell.ts';
import type { Reckoned } from './reckoned.ts';

/** Of one candidate, by cell: what it comes to as it is, and what is left of it beside the model. */
export interface ScatteredCells {
  whole: Float64Array;
  left: Float64Array;
}

/** What the model leaves of each value, made as large as it would be if the model had not been fitted to it. */
export interface Scattered {
  cells: ScatteredCells[];
  /** What is left of the cells once the model has told its parts. */
  df: number;
}

/**
 * Where nearly each condition was recorded once, drawing takes would leave a model with hardly more values than parts, which wavers far
 * more than the one of all values. There all takes stay, and what the model leaves of a value is moved by how often its take was drawn, once
 * less (a bootstrap of residuals by take: C. F. J. Wu, Jackknife, bootstrap and other resampling methods in regression analysis, 1986).
 * @returns null where nothing is left to move
 */
export function scatteredOf(own: Own[], reckoned: Reckoned, whole: Draw): Scattered | null {
  const { model, cells } = reckoned.ground;
  const df = cells.length - (model?.parts ?? 0);
  if (!model || df < 1) return null;
  for (const each of own) for (let cell = 0; cell < each.cells.length; cell++) drawCell(each, cell, whole, true);
  const values = Float64Array.from(own.flatMap((each) => [...each.values]));
  model.fit(values, new Float64Array(cells.length).fill(1));
  const larger = Math.sqrt(cells.length / df);
  let at = 0;
  const scattered = own.map((each): ScatteredCells => {
    const left = each.values.map((value) => {
      const { candidate, condition } = cells[at++] as (typeof cells)[number];
      const told = model.at(candidate, condition);
      return Number.isNaN(told) ? 0 : larger * (value - told);
    });
    return { whole: each.values.slice(), left };
  });
  return { cells: scattered, df };
}

/** A value of which nothing was drawn is there all the same, moved by what the model leaves of it. */
export function scatterCell(own: Own, cell: number, { whole, left }: ScatteredCells): void {
  const times = own.times[cell] as number;
  own.values[cell] = (times > 0 ? (own.values[cell] as number) : (whole[cell] as number)) + (left[cell] as number) * (times - 1);
  own.times[cell] = 1;
}
