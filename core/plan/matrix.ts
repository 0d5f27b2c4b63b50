import { FACTOR_KINDS, type Factor, type FactorKind, type Level, type Setup, setupKey } from '../domain/factor.ts';

/** Ticked levels of one kind of factor; empty when the plan lacks the factor. */
export function tickedLevels(factors: readonly Factor[], kind: FactorKind): Level[] {
  return factors.find((factor) => factor.kind === kind)?.levels.filter((level) => level.ticked) ?? [];
}

/** Factors that still have no ticked level; while there are any the matrix is empty. */
export function factorsWithoutLevel(factors: readonly Factor[]): FactorKind[] {
  return FACTOR_KINDS.filter((kind) => tickedLevels(factors, kind).length === 0);
}

/** Number of cells of the full matrix, before any is left out. */
export function matrixSize(factors: readonly Factor[]): number {
  return FACTOR_KINDS.reduce((size, kind) => size * tickedLevels(factors, kind).length, 1);
}

/**
 * Every setup of the full matrix except the cells left out, candidates varying fastest.
 * @param leftOut setup keys, see {@link setupKey}
 */
export function matrixSetups(factors: readonly Factor[], leftOut: readonly string[]): Setup[] {
  const out = new Set(leftOut);
  const setups: Setup[] = [];
  for (const station of tickedLevels(factors, 'station')) {
    for (const windscreen of tickedLevels(factors, 'windscreen')) {
      for (const distance of tickedLevels(factors, 'distance')) {
        for (const script of tickedLevels(factors, 'script')) {
          for (const candidate of tickedLevels(factors, 'candidate')) {
            const setup: Setup = {
              station: station.id,
              windscreen: windscreen.id,
              distance: distance.id,
              script: script.id,
              candidate: candidate.id,
            };
            if (!out.has(setupKey(setup))) setups.push(setup);
          }
        }
      }
    }
  }
  return setups;
}
