import { type Criterion, weightShares } from '../domain/criterion.ts';
import { toCsv } from '../formats/csv.ts';
import { MEASURES } from '../measure/catalogue.ts';
import type { VerdictNote } from './usableRecordings.ts';
import type { RuledOut, VerdictCell, VerdictRow } from './verdict.ts';

const COLUMNS = ['candidate', 'rank', 'figure', 'value', 'unit', 'desirability', 'share of weight', 'conditions', 'remark'];

/** Unit of a criterion's value. */
export function criterionUnit(criterion: Pick<Criterion, 'kind' | 'measureId'>): string {
  return criterion.kind === 'measured' && criterion.measureId ? MEASURES[criterion.measureId].unit : 'points';
}

/** Why a candidate is ruled out, with the value and where it was met. */
export function ruledOutText(out: RuledOut, criteria: readonly Criterion[], where: (conditionKey: string) => string): string {
  const criterion = criteria.find((each) => each.id === out.criterionId);
  const limit = criterion?.dealbreaker ? ` (${Math.round(out.value * 10) / 10} against ${criterion.dealbreaker.limit} ${criterionUnit(criterion)})` : '';
  return `${out.reason}${limit}${out.conditionKey === null ? '' : `, ${where(out.conditionKey)}`}`;
}

/**
 * Every figure of a verdict with its unit, a line each; at the end what to know before it is believed.
 * @param where words of a condition by its key
 */
export function verdictCsv(
  rows: readonly VerdictRow[],
  criteria: readonly Criterion[],
  notes: readonly VerdictNote[] = [],
  where: (conditionKey: string) => string = (key) => key,
): string {
  const shares = weightShares(criteria.map((criterion) => criterion.weight));
  const nameOf = (id: string) => criteria.find((criterion) => criterion.id === id)?.name ?? id;
  const lines = rows.flatMap((row) => {
    const base = { candidate: row.candidate.name, rank: row.rank, desirability: null, 'share of weight': null, conditions: null };
    const ruledOut = row.ruledOut.map((each) => ruledOutText(each, criteria, where)).join('; ');
    const missing = row.missing.map(nameOf).join(', ');
    const untested = row.untested.map(nameOf).join(', ');
    const remark = [ruledOut && `ruled out: ${ruledOut}`, missing && `missing: ${missing}`, untested && `limit not tested everywhere: ${untested}`].filter(Boolean).join('; ');
    return [
      { ...base, figure: 'score', value: row.score, unit: 'of 100', remark },
      { ...base, figure: 'lowest score', value: row.lowest, unit: 'of 100', remark: 'ranked by it' },
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
          conditions: cell.count,
          remark: remarkOf(cell, row),
        };
      }),
    ];
  });
  const told = notes.map((note) => ({
    candidate: '',
    rank: null,
    figure: 'to know',
    value: null,
    unit: '',
    desirability: null,
    'share of weight': null,
    conditions: null,
    remark: note.text,
  }));
  return toCsv(COLUMNS, [...lines, ...told]);
}

function remarkOf({ criterionId, value, reckoned, reckonedBy, coverage }: VerdictCell, { unlike }: VerdictRow): string {
  if (value === null) return unlike.includes(criterionId) ? 'recorded under no condition that ties it to the others' : 'missing';
  const told = [coverage < 1 && `${Math.round(coverage * 100)} % as much was recorded as of others`, reckonedBy && `${reckoned} conditions reckoned by ${reckonedBy}`];
  return told.filter(Boolean).join('; ');
}
