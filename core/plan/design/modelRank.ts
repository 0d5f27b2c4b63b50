import type { FactorKind, Setup } from '../../domain/factor.ts';

/** An effect of a model: one factor by itself, or two together. */
export type Effect = readonly [FactorKind] | readonly [FactorKind, FactorKind];

/** Columns of a model: for each effect the products of its factors' level contrasts. */
export interface ModelColumns {
  /** Columns of one setup; the first is the mean. */
  rowOf(setup: Setup): Float64Array;
  width: number;
}

/**
 * Contrasts of a model over the levels that occur: a factor of L levels has L - 1 columns (level
 * against the first, in effect coding: 1 for its own, -1 for the first, 0 else), a pair of factors the
 * products of theirs.
 */
export function modelColumns(setups: readonly Setup[], effects: readonly Effect[]): ModelColumns {
  const levels = new Map<FactorKind, string[]>();
  for (const kind of new Set(effects.flat())) levels.set(kind, [...new Set(setups.map((setup) => setup[kind] ?? ''))]);
  const contrast = (setup: Setup, kind: FactorKind): number[] => {
    const own = levels.get(kind) as string[];
    const place = own.indexOf(setup[kind] ?? '');
    return own.slice(1).map((_level, index) => (place === 0 ? -1 : place === index + 1 ? 1 : 0));
  };
  const size = (kind: FactorKind) => (levels.get(kind) as string[]).length - 1;
  const width = 1 + effects.reduce((sum, [a, b]) => sum + size(a) * (b ? size(b) : 1), 0);
  return {
    width,
    rowOf(setup) {
      const row = new Float64Array(width);
      row[0] = 1;
      let at = 1;
      for (const [a, b] of effects) {
        for (const first of contrast(setup, a)) {
          if (!b) row[at++] = first;
          else for (const second of contrast(setup, b)) row[at++] = first * second;
        }
      }
      return row;
    },
  };
}

/**
 * Rank of the model over these setups: how many of its columns they can tell apart. By elimination
 * with full pivoting on the normal equations; all entries are whole numbers, so a pivot is either
 * there or nothing.
 */
export function modelRank(setups: readonly Setup[], effects: readonly Effect[]): number {
  const { rowOf, width } = modelColumns(setups, effects);
  const normal = new Float64Array(width * width);
  for (const setup of setups) {
    const row = rowOf(setup);
    for (let i = 0; i < width; i++) {
      const left = row[i] as number;
      if (left !== 0) for (let j = 0; j < width; j++) normal[i * width + j] = (normal[i * width + j] as number) + left * (row[j] as number);
    }
  }
  return rankOf(normal, width);
}

function rankOf(matrix: Float64Array, width: number): number {
  const largest = matrix.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  const left = Array.from({ length: width }, (_, at) => at);
  for (let rank = 0; rank < width; rank++) {
    let pivot = rank;
    for (let at = rank + 1; at < width; at++) if (diagonal(matrix, width, left[at] as number) > diagonal(matrix, width, left[pivot] as number)) pivot = at;
    [left[rank], left[pivot]] = [left[pivot] as number, left[rank] as number];
    const p = left[rank] as number;
    const own = matrix[p * width + p] as number;
    if (own <= 1e-9 * largest) return rank;
    for (let at = rank + 1; at < width; at++) {
      const i = left[at] as number;
      const share = (matrix[i * width + p] as number) / own;
      if (share !== 0) for (let j = 0; j < width; j++) matrix[i * width + j] = (matrix[i * width + j] as number) - share * (matrix[p * width + j] as number);
    }
  }
  return width;
}

const diagonal = (matrix: Float64Array, width: number, at: number) => matrix[at * width + at] as number;

/** Whether the setups can tell an effect apart from all the others of the model: without its columns the rank falls by their full number. */
export function isEstimable(setups: readonly Setup[], model: readonly Effect[], effect: Effect): boolean {
  const others = model.filter((each) => each !== effect);
  const own = modelColumns(setups, [effect]).width - 1;
  return own > 0 && modelRank(setups, [...others, effect]) - modelRank(setups, others) === own;
}
