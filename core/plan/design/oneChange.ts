import type { FactorKind, Setup } from '../../domain/factor.ts';
import type { Design } from '../../domain/plan.ts';

/** The base of one change at a time: the chosen levels, and the first that occurs where none was chosen. */
export function baseSetup(possible: readonly Setup[], kinds: readonly FactorKind[], base: Design['base']): Setup | null {
  const matches = (setup: Setup) => kinds.reduce((sum, kind) => sum + (base[kind] === undefined || base[kind] === setup[kind] ? 1 : 0), 0);
  return possible.reduce<Setup | null>((best, setup) => (best === null || matches(setup) > matches(best) ? setup : best), null);
}

/** The base, and every setup that differs from it in one factor only. */
export function oneChange(possible: readonly Setup[], kinds: readonly FactorKind[], base: Design['base']): Setup[] {
  const from = baseSetup(possible, kinds, base);
  if (!from) return [];
  return possible.filter((setup) => kinds.filter((kind) => setup[kind] !== from[kind]).length <= 1);
}

/**
 * A ladder: at each rung one setup with speech and one without, all else as in the base. Where a script
 * is not chosen or gone, the first two scripts stand in.
 */
export function ladder(possible: readonly Setup[], kinds: readonly FactorKind[], design: Pick<Design, 'base' | 'ladder'>): Setup[] {
  const from = baseSetup(possible, kinds, design.base);
  if (!from) return [];
  const scripts = [...new Set(possible.map((setup) => setup.script))];
  const speech = scripts.includes(design.ladder.speechId) ? design.ladder.speechId : scripts[0];
  const silence = scripts.includes(design.ladder.silenceId) ? design.ladder.silenceId : scripts.find((id) => id !== speech);
  const still = kinds.filter((kind) => kind !== design.ladder.kind && kind !== 'script');
  return possible.filter((setup) => still.every((kind) => setup[kind] === from[kind]) && (setup.script === speech || setup.script === silence));
}
