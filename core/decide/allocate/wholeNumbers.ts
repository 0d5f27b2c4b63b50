import loadHighs from 'highs';

/** A sum of whole numbers, each times a factor, that lies between two bounds; null is no bound. */
export interface WholeRow {
  terms: (readonly [column: number, factor: number])[];
  least: number | null;
  most: number | null;
}

/** What is to be found: whole numbers from 0 to a most that keep every row. */
export interface WholeProgram {
  /** The most that each column may be. */
  most: number[];
  rows: WholeRow[];
}

/**
 * Whole numbers that make a sum largest among those that keep all rows.
 * @param goal factor of each column in that sum
 * @returns a value for each column; null where no numbers keep all rows
 */
export type SolveWhole = (program: WholeProgram, goal: readonly number[]) => number[] | null;

/** A question that was not decided in its time. */
export class Undecided extends Error {}

/** Longest that one question may take. */
const LIMIT_S = 20;

/**
 * A solver of linear programs in whole numbers, by branch and cut to a proven best.
 * @throws Undecided where it could not decide within its time
 */
export async function wholeNumberSolver(): Promise<SolveWhole> {
  const highs = await loadHighs();
  return (program, goal) => {
    // A row without a term is kept by any numbers, or by none.
    if (program.rows.some(({ terms, least, most }) => terms.length === 0 && ((least ?? 0) > 0 || (most ?? 0) < 0))) return null;
    if (program.most.length === 0) return [];
    // With its presolve the solver called some share-outs best that were not (allocate.test.ts counts them all); without it none was found.
    const found = highs.solve(asText(program, goal), { output_flag: false, presolve: 'off', mip_rel_gap: 0, mip_abs_gap: 1e-7, time_limit: LIMIT_S });
    if (found.Status === 'Infeasible') return null;
    if (found.Status !== 'Optimal') throw new Undecided(`The share-out could not be decided within ${LIMIT_S} s (${found.Status}): take fewer roles or candidates into it`);
    return program.most.map((_, column) => Math.abs(Math.round((found.Columns[nameOf(column)] as { Primal?: number } | undefined)?.Primal ?? 0)));
  };
}

const nameOf = (column: number) => `x${column}`;

/** A program in the text that solvers read. */
function asText({ most, rows }: WholeProgram, goal: readonly number[]): string {
  const sum = (terms: WholeRow['terms']) => terms.map(([column, factor]) => `${factor < 0 ? '-' : '+'} ${plain(Math.abs(factor))} ${nameOf(column)}`).join(' ');
  const lines = rows.flatMap(({ terms, least, most: upTo }) => {
    if (terms.length === 0) return [];
    return [...(least === null ? [] : [` ${sum(terms)} >= ${plain(least)}`]), ...(upTo === null ? [] : [` ${sum(terms)} <= ${plain(upTo)}`])];
  });
  return [
    'Maximize',
    ` goal: ${sum(goal.map((factor, column) => [column, factor] as const))}`,
    'Subject To',
    ...(lines.length > 0 ? lines : [` + 1 ${nameOf(0)} >= 0`]),
    'Bounds',
    ...most.map((upTo, column) => ` 0 <= ${nameOf(column)} <= ${plain(upTo)}`),
    'General',
    ` ${most.map((_, column) => nameOf(column)).join(' ')}`,
    'End',
  ].join('\n');
}

/** Digits without an exponent, which the text does not know. */
const plain = (value: number) => String(Number(value.toFixed(6)));
