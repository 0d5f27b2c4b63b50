import { BASIC_KINDS, EXTRA_KINDS, FACTOR_KINDS, type Factor, type FactorKind, type Level, type Setup, setupKey } from '../domain/factor.ts';
import type { ExclusionRule, PlanDraft } from '../domain/plan.ts';

/** Most cells of a matrix that are worked out; more could not be recorded in months. */
export const MOST_CELLS = 50_000;

/** Ticked levels of one kind of factor; empty when the plan lacks the factor. */
export function tickedLevels(factors: readonly Factor[], kind: FactorKind): Level[] {
  return factors.find((factor) => factor.kind === kind)?.levels.filter((level) => level.ticked) ?? [];
}

/** Basic factors that still have no ticked level; while there are any the matrix is empty. */
export function factorsWithoutLevel(factors: readonly Factor[]): FactorKind[] {
  return BASIC_KINDS.filter((kind) => tickedLevels(factors, kind).length === 0);
}

/** Kinds that a setup of this plan has a level for: the basic ones, and the others that have a ticked level. */
export function planKinds(factors: readonly Factor[]): FactorKind[] {
  const basic: readonly FactorKind[] = BASIC_KINDS;
  return FACTOR_KINDS.filter((kind) => basic.includes(kind) || tickedLevels(factors, kind).length > 0);
}

/** Kinds with more than one ticked level. */
export function variedKinds(factors: readonly Factor[]): FactorKind[] {
  return FACTOR_KINDS.filter((kind) => tickedLevels(factors, kind).length > 1);
}

/** Number of cells of the full matrix, before any is left out. */
export function matrixSize(factors: readonly Factor[]): number {
  return planKinds(factors).reduce((size, kind) => size * tickedLevels(factors, kind).length, 1);
}

/** Whether a rule says that a setup cannot occur. */
export function isExcluded(setup: Setup, rules: readonly ExclusionRule[]): boolean {
  return rules.some((rule) => rule.levelIds.includes(setup[rule.kind] ?? '') && rule.withLevelIds.includes(setup[rule.withKind] ?? ''));
}

/** Kinds in the order in which the matrix is run through: candidates vary fastest. */
const RUN: readonly FactorKind[] = ['station', ...EXTRA_KINDS, 'windscreen', 'distance', 'script', 'candidate'];

/**
 * Every setup of the full matrix except those that cannot occur and those left out by hand, candidates
 * varying fastest.
 */
export function matrixSetups(factors: readonly Factor[], { leftOut = [], rules = [] }: Partial<Pick<PlanDraft, 'leftOut' | 'rules'>> = {}): Setup[] {
  const out = new Set(leftOut);
  const kinds = RUN.filter((kind) => planKinds(factors).includes(kind));
  const levels = kinds.map((kind) => tickedLevels(factors, kind));
  const total = levels.reduce((size, each) => size * each.length, 1);
  const setups: Setup[] = [];
  for (let cell = 0; cell < total; cell++) {
    const setup = {} as Setup;
    let rest = cell;
    for (let k = kinds.length - 1; k >= 0; k--) {
      const own = levels[k] as Level[];
      setup[kinds[k] as FactorKind] = (own[rest % own.length] as Level).id;
      rest = Math.floor(rest / own.length);
    }
    if (!isExcluded(setup, rules) && !out.has(setupKey(setup))) setups.push(setup);
  }
  return setups;
}
