/** Level of a mean square in decibels; null for nothing at all, which has no level. */
export function powerDb(meanSquare: number): number | null {
  return meanSquare > 0 ? 10 * Math.log10(meanSquare) : null;
}

/** Level of an amplitude in decibels; null for nothing at all. */
export function amplitudeDb(amplitude: number): number | null {
  return amplitude > 0 ? 20 * Math.log10(amplitude) : null;
}

/** Amplitude of a level in decibels. */
export function dbAmplitude(levelDb: number): number {
  return 10 ** (levelDb / 20);
}
