import { rankDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import type { DrawnFrom } from '@marvet/core/decide/doubt/samples';
import { closeToFirst } from '@marvet/core/decide/doubt/sayDoubt';
import { simulatedTrial, type TrialShape } from '@marvet/core/decide/doubt/simulatedTrial';
import { randomSource } from '@marvet/core/simulate/random';
import { studentPower } from '@marvet/core/statistics/studentPower';
import { median, rootMeanSquare } from 'simple-statistics';

/** What was called in simulated trials of one shape. */
export interface Calls {
  shape: TrialShape;
  trials: number;
  /** Of equal candidates, how many trials called one of them the first. */
  wrongly: number;
  /** With the first truly ahead by twice the standard error of the difference, in how many it was called first. */
  found: number;
  /** Part in which Student's test of as many takes finds such a difference. */
  theory: number;
}

/** Shapes of a small morning, a day, and many of everything. */
const SHAPES: TrialShape[] = [
  { takes: 4, candidates: 2, criteria: 1 },
  { takes: 8, candidates: 2, criteria: 1 },
  { takes: 16, candidates: 2, criteria: 1 },
  { takes: 12, candidates: 5, criteria: 1 },
  { takes: 12, candidates: 2, criteria: 4 },
  { takes: 24, candidates: 4, criteria: 4 },
];

/** Draws a verdict in these trials; more change the rates by less than their own doubt. */
const DRAWS = 500;

export function judgeCalls(trials: number): Calls[] {
  return SHAPES.map((shape) => {
    const random = randomSource(shape.takes + 100 * shape.candidates + 10_000 * shape.criteria);
    const made = (ahead: number) => Array.from({ length: trials }, () => simulatedTrial(random, { ...shape, ahead }));
    const standardError = errorOf(made(0));
    return {
      shape,
      trials,
      wrongly: made(0).filter((trial) => calledFirst(trial) !== null).length,
      found: made(2 * standardError).filter((trial) => calledFirst(trial) === 'x0').length,
      theory: studentPower(2, shape.takes - 1, 0.05),
    };
  });
}

function calledFirst(trial: DrawnFrom): string | null {
  const found = closeToFirst(rankDoubt(trial, 'given', DRAWS));
  return found && found.close.length === 0 ? found.first.candidateId : null;
}

/** Standard error of the difference of two equal candidates: of what the verdict compares, the mean of their medians over criteria. */
function errorOf(trials: readonly DrawnFrom[]): number {
  const medianOf = (samples: DrawnFrom['samples'][number], candidate: number) => {
    return median(samples.flatMap((each) => (each.candidate === candidate ? [each.value] : [])));
  };
  const differences = trials.map(({ samples }) => samples.reduce((sum, own) => sum + medianOf(own, 0) - medianOf(own, 1), 0) / samples.length);
  return rootMeanSquare(differences);
}

/** The part of docs/accuracy.md on verdicts. */
export function callsText(calls: readonly Calls[]): string {
  const rows = calls.map(
    ({ shape: { takes, candidates, criteria }, trials, wrongly, found, theory }) =>
      `| ${takes} | ${candidates} | ${criteria} | ${trials} | ${(wrongly / trials).toFixed(2)} | ${(found / trials).toFixed(2)} | ${theory.toFixed(2)} |`,
  );
  return `Simulated trials of known truth, every candidate in every take, moments that differ four times as much as the values of one moment. *Called wrongly* is how often one of equal candidates is called clearly first (wanted: at most 0.10). *Found* is how often the first is, where it is truly ahead by twice the standard error of the difference; *theory* is Student's test of two with as many takes. With several rivals the first must be clear of each, which no test of two asks.

| takes | candidates | criteria | trials | called wrongly | found | theory |
|---|---|---|---|---|---|---|
${rows.join('\n')}`;
}
