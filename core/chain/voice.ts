/** How loud a talker is, as a level at one metre in front of the mouth. */
export interface VocalEffort {
  id: string;
  label: string;
  /** A-weighted level at 1 m while speaking, in dB SPL. */
  dbSplAt1M: number;
}

/**
 * Steps of vocal effort: relaxed to very loud after ISO 9921:2003, annex A (54 to 78 dB A at 1 m in
 * steps of 6 dB); whisper and shout carry the scale on by the same steps in either direction.
 */
export const VOCAL_EFFORTS: readonly VocalEffort[] = [
  { id: 'whisper', label: 'whisper', dbSplAt1M: 42 },
  { id: 'relaxed', label: 'relaxed', dbSplAt1M: 54 },
  { id: 'normal', label: 'normal', dbSplAt1M: 60 },
  { id: 'raised', label: 'raised', dbSplAt1M: 66 },
  { id: 'loud', label: 'loud', dbSplAt1M: 72 },
  { id: 'very-loud', label: 'very loud', dbSplAt1M: 78 },
  { id: 'shout', label: 'shout', dbSplAt1M: 84 },
];

/** Peaks of a close voice lie about this far over its average while speaking. */
export const PEAK_OVER_AVERAGE_DB = 15;

/**
 * Level of a voice at a distance in the open, by the inverse square law: 6 dB less for every doubling.
 * A room adds to it; what it adds is not taken for signal here.
 * @example voiceDbSpl(60, 0.5) // 66.02
 */
export function voiceDbSpl(dbSplAt1M: number, distanceM: number): number {
  return dbSplAt1M - 20 * Math.log10(distanceM);
}
