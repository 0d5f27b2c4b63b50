/// <reference path="../jstat.d.ts" />
import jstat from 'jstat';
import { studentQuantile } from './studentT.ts';

/**
 * How often Student's test finds a difference, both sides: the probability that a t of noncentrality `times` lies beyond the quantile
 * (J. Cohen, Statistical Power Analysis for the Behavioral Sciences, 1988).
 * @param times the true difference, in its standard errors
 * @param df degrees of freedom of the estimated error
 * @param level chance to find one where there is none
 * @example studentPower(2, 15, 0.05) // 0.46
 */
export function studentPower(times: number, df: number, level: number): number {
  const critical = studentQuantile(1 - level / 2, df);
  return 1 - jstat.noncentralt.cdf(critical, df, times) + jstat.noncentralt.cdf(-critical, df, times);
}
