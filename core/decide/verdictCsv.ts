import { type Criterion, weightShares } from '../domain/criterion.ts';
import { toCsv } from '../formats/csv.ts';
import { MEASURES } from '../measure/catalogue.ts';
import type { VerdictRow } from './verdict.ts';

const COLUMNS = ['candidate', 'rank', 'figure', 'value', 'unit', 'desirability', 'share of weight', 'takes', 'remark'];

/** Unit of a criterion's value. */
export function criterionUnit(criterion: Pick<Criterion, 'kind' | 'measureId'>): string {
  return criterion.kind === 'measured' && criterion.measureId ? MEASURES[criterion.measureId].unit : 'points';
}

/** Every figure of a verdict with its unit, a line each. */
export function verdictCsv(rows: readonly VerdictRow[], criteria: readonly Criterion[]): string {
  const shares = weightShares(criteria.map((criterion) => criterion.weight));
  const nameOf = (id: string) => criteria.find((criterion) => criterion.id === id)?.name ?? id;
  const lines = rows.flatMap((row) => {
    const base = { candidate: row.candidate.name, rank: row.rank, desirability: null, 'share of weight': null, takes: null };
    const ruledOut = row.ruledOut.map((each) => each.reason).join('; ');
    const missing = row.missing.map(nameOf).join(', ');
    return [
      { ...base, figure: 'score', value: row.score, unit: 'of 100', remark: [ruledOut && `ruled out: ${ruledOut}`, missing && `missing: ${missing}`].filter(Boolean).join('; ') },
      { ...base, figure: 'lowest score', value: row.lowest, unit: 'of 100', remark: '' },
      { ...base, figure: 'highest score', value: row.highest, unit: 'of 100', remark: '' },
      { ...base, figure: 'price', value: row.candidate.price, unit: row.candidate.currency ?? '', remark: '' },
      ...row.cells.map((cell, index) => {
        const criterion = criteria[index] as Criterion;
        return {
          ...base,
          figure: criterion.name,
          value: cell.value,
          unit: criterionUnit(criterion),
          desirability: cell.desirability,
          'share of weight': shares[index] ?? null,
          takes: cell.count,
          remark: cell.value === null ? 'missing' : cell.sameConditions ? '' : 'not under the same conditions',
        };
      }),
    ];
  });
  return toCsv(COLUMNS, lines);
}
