import { CONDITION_KINDS, type ConditionKind, conditionOfKey, NOT_KNOWN } from '../../domain/factor.ts';
import { SparseFit, type SparseRow } from '../../statistics/sparseFit.ts';
import { type CellPlace, ConditionFit } from './conditionFit.ts';

/** What stands beside the candidate in the model: each condition as one, or each factor of the plan by itself. */
export type LikeBy = 'condition' | 'factors';

/**
 * How values hang together: that of a candidate under a condition is a part of the candidate and a part of the condition. So what a
 * candidate would have had where it was not recorded follows from how the others fared there, as far as they met somewhere.
 */
export interface LikeModel {
  by: LikeBy;
  /** How many parts it tells apart. */
  parts: number;
  /** Candidates that can be held against each other; the largest such group. */
  tied: ReadonlySet<number>;
  /** Fits anew: what each cell comes to, and what it weighs. */
  fit(values: Float64Array, weights: Float64Array): void;
  /** Value of a candidate under a condition by the last fit; NaN where it cannot be told. */
  at(candidate: number, condition: number): number;
}

/**
 * The model that the cells can carry: with each condition as one where that ties all candidates, since it asks for the least; by factors
 * where that ties more of them, as in reduced designs. Null where no two can be held against each other.
 * @param keys of the conditions
 */
export function likeModel(cells: readonly CellPlace[], keys: readonly string[], candidates: number): LikeModel | null {
  const recorded = new Set(cells.map(({ candidate }) => candidate)).size;
  const plain = byCondition(cells, keys.length, candidates);
  if (plain.tied.size === recorded) return plain;
  const factors = byFactors(factorRows(keys), cells, candidates);
  const best = factors.tied.size > plain.tied.size ? factors : plain;
  return best.tied.size > 1 ? best : null;
}

/** The largest group of those that can be held against each other. */
function largestGroup(there: readonly number[], areTied: (a: number, b: number) => boolean): ReadonlySet<number> {
  const groups = there.map((one) => there.filter((other) => one === other || areTied(one, other)));
  return new Set(groups.reduce<number[]>((most, group) => (group.length > most.length ? group : most), []));
}

function byCondition(cells: readonly CellPlace[], conditions: number, candidates: number): LikeModel {
  const fit = new ConditionFit(cells, candidates, conditions);
  fit.fit(new Float64Array(cells.length), new Float64Array(cells.length).fill(1));
  const there = [...new Set(cells.map(({ candidate }) => candidate))];
  return {
    by: 'condition',
    parts: there.length + new Set(cells.map(({ condition }) => condition)).size - there.filter((one) => there.every((other) => other >= one || !fit.areTied(one, other))).length,
    tied: largestGroup(there, fit.areTied),
    fit: (values, weights) => fit.fit(values, weights),
    at: (candidate, condition) => fit.at(candidate, condition),
  };
}

/** What conditions put into a row, as columns counted from 0; null for one of which too little is known. */
interface ConditionRows {
  rows: (SparseRow | null)[];
  columns: number;
}

/** Each factor by itself, its levels about their middle, so that a candidate that has no level of a factor, as a boom no rig, is held against the middle of them. */
function factorRows(keys: readonly string[]): ConditionRows {
  const conditions = keys.map((key) => conditionOfKey(key) as Partial<Record<ConditionKind, string>>);
  const known = conditions.map((condition) => !Object.values(condition).includes(NOT_KNOWN));
  let columns = 0;
  const factors = CONDITION_KINDS.flatMap((kind) => {
    const levels = [...new Set(conditions.flatMap((condition, at) => (known[at] ? (condition[kind] ?? []) : [])))];
    if (levels.length < 2) return [];
    const first = columns;
    columns += levels.length - 1;
    return [{ kind, levels, first }];
  });
  const rows = conditions.map((condition, at): SparseRow | null => {
    if (!known[at]) return null;
    const [places, parts]: [number[], number[]] = [[], []];
    for (const { kind, levels, first } of factors) {
      const level = levels.indexOf(condition[kind] ?? '');
      if (level < 0) continue;
      const last = level === levels.length - 1;
      for (let column = 0; column < levels.length - 1; column++)
        if (last || column === level) {
          places.push(first + column);
          parts.push(last ? -1 : 1);
        }
    }
    return { columns: Int32Array.from(places), parts: Float64Array.from(parts) };
  });
  return { rows, columns };
}

function byFactors({ rows, columns }: ConditionRows, cells: readonly CellPlace[], candidates: number): LikeModel {
  const rowOf = (candidate: number, own: SparseRow): SparseRow => ({
    columns: Int32Array.from([...own.columns, columns + candidate]),
    parts: Float64Array.from([...own.parts, 1]),
  });
  const none: SparseRow = { columns: new Int32Array(), parts: new Float64Array() };
  const known = Float64Array.from(cells, ({ condition }) => Number(rows[condition] !== null));
  const fit = new SparseFit(
    cells.map(({ candidate, condition }) => rowOf(candidate, rows[condition] ?? none)),
    columns + candidates,
  );
  const asked = Array.from({ length: candidates }, (_, candidate) => rows.map((own) => own && rowOf(candidate, own)));
  const weights = new Float64Array(cells.length);
  fit.fit(new Float64Array(cells.length), known);
  const areTied = (a: number, b: number) => !Number.isNaN(fit.at({ columns: Int32Array.of(columns + a, columns + b), parts: Float64Array.of(1, -1) }));
  const there = [...new Set(cells.flatMap(({ candidate }, at) => (known[at] ? [candidate] : [])))];
  return {
    by: 'factors',
    parts: columns + there.length,
    tied: largestGroup(there, areTied),
    fit(values, own) {
      for (let at = 0; at < weights.length; at++) weights[at] = (own[at] as number) * (known[at] as number);
      fit.fit(values, weights);
    },
    at(candidate, condition) {
      const row = asked[candidate]?.[condition];
      return row ? fit.at(row) : Number.NaN;
    },
  };
}
