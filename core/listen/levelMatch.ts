/** What level matching needs to know of a clip. */
export interface ClipLevels {
  integratedLufs: number;
  truePeakDbtp: number;
}

export interface LevelMatch {
  /** Loudness that all clips get. */
  matchedLufs: number;
  /** Gain of each clip in dB, in their order. */
  gainsDb: number[];
  /** True when a clip's peaks kept all of them below the target. */
  heldByCeiling: boolean;
}

/**
 * Gains that bring clips to one loudness. When the peaks of one would pass the true-peak ceiling at
 * the target, all are brought to the highest loudness that every clip can have: clips that differ in
 * level cannot be judged.
 * @example levelMatch([{ integratedLufs: -30, truePeakDbtp: -12 }], -23, -1) // gains [7]
 */
export function levelMatch(clips: readonly ClipLevels[], targetLufs: number, ceilingDbtp: number): LevelMatch {
  const reachable = clips.map((clip) => clip.integratedLufs + ceilingDbtp - clip.truePeakDbtp);
  const matchedLufs = Math.min(targetLufs, ...reachable);
  return {
    matchedLufs,
    gainsDb: clips.map((clip) => matchedLufs - clip.integratedLufs),
    heldByCeiling: matchedLufs < targetLufs,
  };
}
