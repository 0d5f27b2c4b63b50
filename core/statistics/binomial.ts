/// <reference path="../jstat.d.ts" />
import jstat from 'jstat';

/**
 * How likely at least so many of some tries come, each with the same chance and by itself: the exact binomial tail, by the incomplete
 * beta function (M. Abramowitz and I. Stegun, Handbook of Mathematical Functions, 26.5.24).
 * @example atLeast(12, 16, 0.5) // 0.0384
 */
export function atLeast(came: number, tries: number, chance: number): number {
  if (came <= 0) return 1;
  if (came > tries || chance <= 0) return 0;
  return chance >= 1 ? 1 : jstat.ibeta(chance, came, tries - came + 1);
}

/** How likely at most so many come. */
export const atMost = (came: number, tries: number, chance: number): number => 1 - atLeast(came + 1, tries, chance);
