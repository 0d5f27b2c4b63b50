import { aggregateBy, byCondition, oneValue } from '@marvet/core/decide/aggregate';
import { type RankDoubt, rankDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import type { DrawnFrom } from '@marvet/core/decide/doubt/samples';
import { CLEARLY, closeToFirst } from '@marvet/core/decide/doubt/sayDoubt';
import { reducedTrial, simulatedTrial, type TrialShape } from '@marvet/core/decide/doubt/simulatedTrial';
import type { Criterion } from '@marvet/core/domain/criterion';
import { randomSource } from '@marvet/core/simulate/random';
import { studentPower } from '@marvet/core/statistics/studentPower';
import { rootMeanSquare } from 'simple-statistics';

/** What was called in simulated trials of one shape. */
export interface Calls {
  shape: TrialShape;
  /** Whether each take has every candidate, or each candidate its own third of the conditions. */
  design: 'all together' | 'a third';
  trials: number;
  /** Standard error of the difference of two candidates, in the spread of a value about its moment. */
  standardError: number;
  /** Of equal candidates, how many trials called one of them the first. */
  wrongly: number;
  /** With the first truly ahead by twice the standard error of the difference, in how many it was called first. */
  found: number;
  /** In how many of these it was clearly above the second, whatever the others did. */
  above: number;
  /** Part in which Student's test of as many takes finds such a difference. */
  theory: number;
}

/** Shapes of a small morning, a day, and many of everything. */
const TOGETHER: TrialShape[] = [
  { takes: 4, candidates: 2, criteria: 1 },
  { takes: 8, candidates: 2, criteria: 1 },
  { takes: 16, candidates: 2, criteria: 1 },
  { takes: 12, candidates: 5, criteria: 1 },
  { takes: 12, candidates: 2, criteria: 4 },
  { takes: 24, candidates: 4, criteria: 4 },
  { takes: 12, candidates: 2, criteria: 1, aggregation: 'median' },
  { takes: 24, candidates: 4, criteria: 4, aggregation: 'median' },
];
/** Nine takes of each candidate. */
const THIRDS: TrialShape[] = [2, 3, 5].map((candidates) => ({ takes: 9 * candidates, candidates, criteria: 1 }));
/** Three factors of three levels beside the candidates. */
const FACTOR_COLUMNS = 6;

/** Draws a verdict in these trials; more change the rates by less than their own doubt. */
const DRAWS = 500;

export function judgeCalls(trials: number): Calls[] {
  return [
    ...TOGETHER.map((shape) => judgeShape(shape, 'all together', simulatedTrial, shape.takes - 1, trials)),
    ...THIRDS.map((shape) => judgeShape(shape, 'a third', reducedTrial, shape.takes - shape.candidates - FACTOR_COLUMNS, trials)),
  ];
}

function judgeShape(shape: TrialShape, design: Calls['design'], make: typeof simulatedTrial, df: number, trials: number): Calls {
  const random = randomSource(shape.takes + 100 * shape.candidates + 10_000 * shape.criteria);
  const made = (ahead: number) => Array.from({ length: trials }, () => make(random, { ...shape, ahead }));
  const standardError = errorOf(made(0));
  const wrongly = made(0).filter((trial) => calledFirst(doubtOf(trial)) !== null).length;
  const told = made(2 * standardError).map(doubtOf);
  const found = told.filter((doubt) => calledFirst(doubt) === 'x0').length;
  const above = told.filter(({ places }) => (places[0]?.beats[1] ?? 0) >= CLEARLY).length;
  return { shape, design, trials, standardError, wrongly, found, above, theory: studentPower(2, df, 0.05) };
}

const doubtOf = (trial: DrawnFrom) => rankDoubt(trial, 'given', DRAWS);

function calledFirst(doubt: RankDoubt): string | null {
  const found = closeToFirst(doubt);
  return found && found.close.length === 0 ? found.first.candidateId : null;
}

/** Standard error of the difference of two equal candidates: of what the verdict compares, in the mean over criteria. */
function errorOf(trials: readonly DrawnFrom[]): number {
  const differences = trials.map(({ samples, criteria }) => {
    const each = samples.map((own, at) => {
      const criterion = criteria[at] as Criterion;
      const values = aggregateBy(
        byCondition(
          own.map(({ candidate, condition, value }) => ({ candidateId: String(candidate), conditionKey: condition, value })),
          criterion,
        ),
        oneValue(criterion),
      );
      return (values.get('0')?.value ?? 0) - (values.get('1')?.value ?? 0);
    });
    return each.reduce((sum, difference) => sum + difference, 0) / samples.length;
  });
  return rootMeanSquare(differences);
}

/** The part of docs/accuracy.md on verdicts. */
export function callsText(calls: readonly Calls[]): string {
  const rows = calls.map(({ shape: { takes, candidates, criteria, aggregation = 'mean' }, design, trials, standardError, wrongly, found, above, theory }) => {
    const rates = [standardError, wrongly / trials, found / trials, above / trials, theory].map((rate) => rate.toFixed(2)).join(' | ');
    return `| ${design} | ${aggregation} | ${takes} | ${candidates} | ${criteria} | ${trials} | ${rates} |`;
  });
  return `Simulated trials of known truth. *All together*: every candidate in every take, moments that differ four times as much as the values of one moment. *A third*: each candidate by itself at nine of 27 conditions of three factors, which do four times as much as the spread of a value. *Error* is the standard error of the difference of two candidates, in the spread of a value about its moment. *Called wrongly* is how often one of equal candidates is called clearly first (wanted: at most 0.10). *Found* is how often the first is, where it is truly ahead of each other one by twice the standard error of the difference; with several rivals it must be clear of each at once, which no test of two asks. *Above one* is how often it stands clearly above one rival; *theory* is how often Student's test of these two finds it.

| design | counts | takes | candidates | criteria | trials | error | called wrongly | found | above one | theory |
|---|---|---|---|---|---|---|---|---|---|---|
${rows.join('\n')}`;
}
