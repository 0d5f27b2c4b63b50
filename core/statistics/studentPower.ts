/// <reference path="../jstat.d.ts" />
import jstat from 'jstat';
import { studentQuantile } from './studentT.ts';

/** Steps of the integral; more change nothing in the fourth digit. */
const STEPS = 2_000;

/**
 * How often Student's test finds a difference, both sides: the probability that a t of noncentrality `times` lies beyond the quantile
 * (J. Cohen, Statistical Power Analysis for the Behavioral Sciences, 1988), by integrating the normal tails over the spread that was estimated.
 * @param times the true difference, in its standard errors
 * @param df degrees of freedom of the estimated error
 * @param level chance to find one where there is none
 * @example studentPower(2, 15, 0.05) // 0.46
 */
export function studentPower(times: number, df: number, level: number): number {
  const critical = studentQuantile(1 - level / 2, df);
  let sum = 0;
  for (let step = 0; step < STEPS; step++) {
    // The square of the estimated spread over the true one, at the middle of each equal part of its probability.
    const spread = Math.sqrt(jstat.chisquare.inv((step + 0.5) / STEPS, df) / df);
    sum += jstat.normal.cdf(times - critical * spread, 0, 1) + jstat.normal.cdf(-times - critical * spread, 0, 1);
  }
  return sum / STEPS;
}
