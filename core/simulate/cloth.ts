import { type BiquadCoefficients, highShelf } from '../audio/biquad.ts';

/** What is worn over a microphone, by how it sounds when it moves: the part of the spectrum that its friction fills, in Hz. */
export const FRICTION_HZ = {
  /** Dull: threads that give. */
  wool: [80, 800],
  cotton: [300, 4000],
  /** Crisp: stiff folds that snap. */
  nylon: [1500, 11_000],
} as const;
export type Cloth = keyof typeof FRICTION_HZ;
export const CLOTHS = Object.keys(FRICTION_HZ) as Cloth[];

/** What one layer takes away at the top where nothing else is known, in dB. */
export const LAYER_LOSS_DB = 4.5;

/**
 * Cloth as a filter: it moves along with the lows and takes more and more above, all of its loss near
 * the top. What is given is the loss of all layers at the top, in dB.
 */
export function clothSections(lossDb: number, rateHz: number): BiquadCoefficients[] {
  return lossDb === 0 ? [] : [highShelf(3000, -0.55 * lossDb, rateHz), highShelf(9000, -0.45 * lossDb, rateHz)];
}
