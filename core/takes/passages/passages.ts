import type { LevelSeries, Span } from '../../measure/report.types.ts';

/** A cut is moved to the quietest moment so near to it. */
export const SNAP_S = 1;
/** What counts as quiet at a cut is quiet for so long: so it keeps off the breath before a word. */
const QUIET_S = 0.4;
/** Where a tenth of the time is quieter is the floor; where a tenth is louder are the words: halfway between, in dB, words end. */
const [FLOOR_SHARE, WORDS_SHARE] = [0.1, 0.9];
/** Less apart, there are no words over a floor, and no pauses. */
const LEAST_RANGE_DB = 6;
/** A shorter passage has no word in it. */
export const SHORTEST_PASSAGE_S = 0.5;

/**
 * The quietest moment near another: the middle of the 0.4 s with the least power within {@link SNAP_S}; of several the nearest. A moment at
 * which nothing near is quieter stays.
 * @param atS seconds from the start of the file
 * @example snapped(10.4, levels) // 10.15, in the pause between two passages
 */
export function snapped(atS: number, { stepS, rmsDbfs }: LevelSeries): number {
  const wide = Math.max(1, Math.round(QUIET_S / stepS));
  const powers = (from: number) => {
    let sum = 0;
    for (let step = from; step < from + wide; step++) sum += 10 ** ((rmsDbfs[step] ?? 0) / 10);
    return sum;
  };
  const startOf = (seconds: number) => Math.max(0, Math.min(rmsDbfs.length - wide, Math.round(seconds / stepS - wide / 2)));
  const here = startOf(atS);
  let best = here;
  let least = powers(here);
  for (let away = 1; away <= Math.round(SNAP_S / stepS); away++) {
    for (const from of [here - away, here + away]) {
      if (from < 0 || from + wide > rmsDbfs.length) continue;
      const power = powers(from);
      // As quiet, the nearer one stands.
      if (power < least * 0.98) [best, least] = [from, power];
    }
  }
  return best === here ? atS : (best + wide / 2) * stepS;
}

/**
 * Pauses: where the level stays under halfway from the floor to the words for so long. Silence before the first word and after the
 * last is none: nothing is parted there.
 * @param leastS shortest pause that counts
 */
export function pausesOf({ stepS, rmsDbfs }: LevelSeries, leastS: number): Span[] {
  const sorted = Float64Array.from(rmsDbfs).sort();
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))] ?? 0;
  const [floor, words] = [at(FLOOR_SHARE), at(WORDS_SHARE)];
  if (words - floor < LEAST_RANGE_DB) return [];
  const edge = (floor + words) / 2;
  const pauses: Span[] = [];
  let from: number | null = null;
  for (let step = 0; step <= rmsDbfs.length; step++) {
    const quiet = step < rmsDbfs.length && (rmsDbfs[step] as number) < edge;
    if (quiet) from ??= step;
    else if (from !== null) {
      if (from > 0 && step < rmsDbfs.length && (step - from) * stepS >= leastS - 1e-9) pauses.push([from * stepS, step * stepS]);
      from = null;
    }
  }
  return pauses;
}

/**
 * Where a file is cut between passages: at the middle of every pause that is as long.
 * @param leastS shortest pause that parts two passages
 */
export const cutsAtPauses = (levels: LevelSeries, leastS: number): number[] => pausesOf(levels, leastS).map(([startS, endS]) => (startS + endS) / 2);

/**
 * Passages between cuts. Cuts that leave too little for a word, between them or to an end, are left out.
 * @example spansBetween([12, 30], 40) // [0, 12], [12, 30], [30, 40]
 */
export function spansBetween(cutsS: readonly number[], lengthS: number): Span[] {
  const kept: number[] = [0];
  for (const atS of [...cutsS].sort((a, b) => a - b)) {
    if (atS - (kept.at(-1) as number) >= SHORTEST_PASSAGE_S && lengthS - atS >= SHORTEST_PASSAGE_S) kept.push(atS);
  }
  return kept.map((startS, index) => [startS, kept[index + 1] ?? lengthS]);
}
