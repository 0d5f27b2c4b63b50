import { aWeightingDb } from '../audio/weighting.ts';
import type { Acoustics, NoiseKind, NoiseSource } from '../domain/station.ts';

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

/** How noise of a place falls where nobody said. */
const USUAL_SLOPE_DB = -4;

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

/** Noise that comes from all around at a station, by octave: its bed, and the hum of a machine that is everywhere; null where neither is known. */
export function bedOctaves({ noiseDba, noiseSlopeDb, hum }: Pick<Acoustics, 'noiseDba' | 'noiseSlopeDb' | 'hum'>): number[] | null {
  const beds = [...(noiseDba === null ? [] : [aroundOctaves(noiseDba, noiseSlopeDb ?? USUAL_SLOPE_DB)]), ...(hum === null ? [] : [octavesOf(hum.levelDba, NOISE_SHAPES.engine)])];
  return beds.length === 0 ? null : NOISE_OCTAVES_HZ.map((_, octave) => 10 * Math.log10(beds.reduce((sum, bed) => sum + 10 ** ((bed[octave] as number) / 10), 0)));
}

/** Index of the third octave of 50 Hz among those of 20 Hz to 20 kHz: the lowest of the three in the octave of 63 Hz. */
const FIRST_THIRD = 4;

/** Octaves from third octaves of a report, each the sum of its three; null where one of them is empty. */
export function octavesOfThirds(thirdsDb: readonly (number | null)[]): number[] | null {
  const octaves = NOISE_OCTAVES_HZ.map((_, octave) => {
    const thirds = thirdsDb.slice(FIRST_THIRD + 3 * octave, FIRST_THIRD + 3 * octave + 3).filter((db) => db !== null);
    return thirds.length === 0 ? null : 10 * Math.log10(thirds.reduce((sum, db) => sum + 10 ** (db / 10), 0));
  });
  return octaves.every((db) => db !== null) ? octaves : null;
}
