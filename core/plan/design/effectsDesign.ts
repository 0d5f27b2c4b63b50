import type { FactorKind, Setup } from '../../domain/factor.ts';
import { type Effect, modelColumns } from './modelRank.ts';

/** Setups beyond the least number, so that a lost take does not sink the whole. */
const SPARE = 2;
const RIDGE = 1e-3;
const MOST_EXCHANGES = 200;

/**
 * Few setups from which each factor's own effect and the chosen two-way effects can still be told
 * apart. The setup that the model knows least about is added next, then setups are exchanged as long
 * as that makes the determinant of the normal equations larger (the D criterion; Fedorov, 1972).
 * @param possible setups that can occur
 * @returns as many setups as the model has columns and two more, or all where there are no more
 */
export function effectsDesign(possible: readonly Setup[], kinds: readonly FactorKind[], interactions: readonly (readonly [FactorKind, FactorKind])[]): Setup[] {
  const effects: Effect[] = [...kinds.map((kind) => [kind] as const), ...interactions.filter((pair) => pair.every((kind) => kinds.includes(kind)))];
  const { rowOf, width } = modelColumns(possible, effects);
  const wanted = width + SPARE;
  if (wanted >= possible.length) return [...possible];
  const rows = possible.map(rowOf);
  const inverse = new Float64Array(width * width);
  for (let i = 0; i < width; i++) inverse[i * width + i] = 1 / RIDGE;
  const chosen = new Uint8Array(rows.length);
  const leverage = Float64Array.from(rows, (row) => form(inverse, row, row));
  for (let count = 0; count < wanted; count++) {
    let next = -1;
    for (let at = 0; at < rows.length; at++) if (!chosen[at] && (next < 0 || (leverage[at] as number) > (leverage[next] as number) + 1e-9)) next = at;
    chosen[next] = 1;
    update(inverse, rows[next] as Float64Array, 1, rows, leverage);
  }
  exchange(rows, chosen, inverse, leverage);
  return possible.filter((_setup, at) => chosen[at]);
}

/** x' M y for a square matrix. */
function form(matrix: Float64Array, x: Float64Array, y: Float64Array): number {
  const width = x.length;
  let sum = 0;
  for (let i = 0; i < width; i++) {
    const left = x[i] as number;
    if (left === 0) continue;
    for (let j = 0; j < width; j++) sum += left * (matrix[i * width + j] as number) * (y[j] as number);
  }
  return sum;
}

/** Adds a row to the design or takes it out: the inverse and all leverages by one step of rank one. */
function update(inverse: Float64Array, row: Float64Array, sign: 1 | -1, rows: readonly Float64Array[], leverage: Float64Array): void {
  const width = row.length;
  const along = new Float64Array(width);
  for (let i = 0; i < width; i++) for (let j = 0; j < width; j++) along[i] = (along[i] as number) + (inverse[i * width + j] as number) * (row[j] as number);
  let own = 0;
  for (let i = 0; i < width; i++) own += (row[i] as number) * (along[i] as number);
  const share = sign / (1 + sign * own);
  for (let i = 0; i < width; i++) for (let j = 0; j < width; j++) inverse[i * width + j] = (inverse[i * width + j] as number) - share * (along[i] as number) * (along[j] as number);
  rows.forEach((other, at) => {
    let dot = 0;
    for (let i = 0; i < width; i++) dot += (other[i] as number) * (along[i] as number);
    leverage[at] = (leverage[at] as number) - share * dot * dot;
  });
}

/** Exchanges a setup of the design for one outside while the determinant grows. */
function exchange(rows: readonly Float64Array[], chosen: Uint8Array, inverse: Float64Array, leverage: Float64Array): void {
  for (let round = 0; round < MOST_EXCHANGES; round++) {
    let out = -1;
    for (let at = 0; at < rows.length; at++) if (chosen[at] && (out < 0 || (leverage[at] as number) < (leverage[out] as number) - 1e-9)) out = at;
    update(inverse, rows[out] as Float64Array, -1, rows, leverage);
    chosen[out] = 0;
    let next = out;
    for (let at = 0; at < rows.length; at++) if (!chosen[at] && (leverage[at] as number) > (leverage[next] as number) + 1e-6) next = at;
    chosen[next] = 1;
    update(inverse, rows[next] as Float64Array, 1, rows, leverage);
    if (next === out) return;
  }
}
