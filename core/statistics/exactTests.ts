/// <reference path="../jstat.d.ts" />
import jstat from 'jstat';

/**
 * The interval of a share by counts, exact: with so much confidence the share lies in it, whatever it is (C. J. Clopper and
 * E. S. Pearson, The use of confidence or fiducial limits, 1934).
 * @example exactShare(0, 10, 0.95) // [0, 0.308]
 */
export function exactShare(came: number, tries: number, confidence: number): [low: number, high: number] {
  const tail = (1 - confidence) / 2;
  return [came === 0 ? 0 : jstat.beta.inv(tail, came, tries - came + 1), came === tries ? 1 : jstat.beta.inv(1 - tail, came + 1, tries - came)];
}

/**
 * How likely two shares that are the same would differ as much as these do, or more: Fisher's exact test of two by two, both
 * sides (R. A. Fisher, The Design of Experiments, 1935). 1 where nothing was tried on one side.
 */
export function fisherExact(cameA: number, stayedA: number, cameB: number, stayedB: number): number {
  const [rowA, rowB, came] = [cameA + stayedA, cameB + stayedB, cameA + cameB];
  const all = rowA + rowB;
  const chance = (first: number) => Math.exp(jstat.combinationln(rowA, first) + jstat.combinationln(rowB, came - first) - jstat.combinationln(all, came));
  const seen = chance(cameA);
  let sum = 0;
  for (let first = Math.max(0, came - rowB); first <= Math.min(rowA, came); first++) {
    const each = chance(first);
    // Equal ones count, also where the last digit says otherwise.
    if (each <= seen * (1 + 1e-7)) sum += each;
  }
  return Math.min(1, sum);
}
