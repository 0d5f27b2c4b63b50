/// <reference path="../jstat.d.ts" />
import jstat from 'jstat';

/**
 * Quantile of Student's distribution.
 * @param p in (0, 1)
 * @param df degrees of freedom, above 0, whole or not
 * @example studentQuantile(0.975, 9) // 2.262
 */
export const studentQuantile = (p: number, df: number): number => jstat.studentt.inv(p, df);
