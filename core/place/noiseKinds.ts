import { aWeightingDb } from '../audio/weighting.ts';
import type { NoiseKind, NoiseSource } from '../domain/station.ts';

/** Octaves in which noise and voice are reckoned at a microphone. */
export const NOISE_OCTAVES_HZ = [63, 125, 250, 500, 1000, 2000, 4000, 8000] as const;

/** How noises of a kind usually fall from octave to octave, in dB of any level: rounded by hand. Each real one differs; a spectrum of its own is better. */
export const NOISE_SHAPES: Readonly<Record<NoiseKind, readonly number[]>> = {
  road: [0, -2, -4, -5, -3, -7, -13, -20],
  engine: [3, 2, 0, -3, -6, -10, -16, -22],
  ventilation: [4, 1, -3, -7, -11, -16, -22, -28],
  water: [-8, -6, -4, -2, -1, -1, -2, -4],
  crowd: [-12, -4, 0, 0, -2, -6, -11, -17],
  generator: [5, 3, 0, -2, -5, -9, -14, -20],
  refrigerator: [2, 0, -4, -8, -13, -18, -25, -32],
  own: [0, 0, 0, 0, 0, 0, 0, 0],
};

/** A-weighting of the octaves, in dB. */
export const OCTAVE_A_DB = NOISE_OCTAVES_HZ.map((hz) => aWeightingDb(hz));

/** Level of octaves together, in dB A. */
export const octavesDba = (levelsDb: readonly number[]): number =>
  10 * Math.log10(levelsDb.reduce((sum, db, octave) => sum + 10 ** ((db + (OCTAVE_A_DB[octave] as number)) / 10), 0));

/** Levels by octave that make up a level in dB A, of the shape given. */
export function octavesOf(levelDba: number, shapeDb: readonly number[]): number[] {
  const shift = levelDba - octavesDba(shapeDb);
  return shapeDb.map((db) => db + shift);
}

/** A source by octave at 1 m. */
export const sourceOctaves = ({ kind, levelDba, octavesDb }: Pick<NoiseSource, 'kind' | 'levelDba' | 'octavesDb'>): number[] =>
  octavesOf(levelDba, octavesDb ?? NOISE_SHAPES[kind]);

/** Noise from all around, by octave: its power per hertz falls by so much an octave, and each octave is twice as wide as the one below. */
export const aroundOctaves = (levelDba: number, slopeDb: number): number[] =>
  octavesOf(
    levelDba,
    NOISE_OCTAVES_HZ.map((_, octave) => octave * (slopeDb + 10 * Math.log10(2))),
  );
