import type { Chapter } from './chapter.types.ts';
import { quantile } from './tracks/frames.ts';
import { meanBetween, runningSums } from './tracks/runningSums.ts';

/** Third-octave columns of the high track that are compared: 630 Hz to 12.5 kHz. */
const COLUMNS = [1, 15] as const;
/** Around the end of a word: how far before and after it a gate may close. */
const BEFORE_S = 0.45;
const AFTER_S = 0.3;
/** Levels are compared over this on either side of the closing, which takes up to the longest of these. */
const PLATEAU_S = 0.07;
const CLOSING_S = [0.02, 0.06, 0.12] as const;
/** All bands fall alike: this much at least, and within that of each other. */
const LEAST_STEP_DB = 5;
const MOST_UNLIKE_DB = 2.5;
/** Before and after it the level stands; a room that dies away falls all the time. */
const STANDING_SHARE = 0.1;
const STANDING_DB = 1.3;
/** What is left after the closing is what the pause has. */
const SETTLED_DB = 3;
/** What stands before the closing is noise: this far under the loud moments of its bands. */
const UNDER_VOICE_DB = 10;
const LEAST_STEPS = 3;
const LEAST_SHARE = 0.3;

/**
 * Whether the noise between words is held down by a gate, an expander or noise reduction, and how far: after a
 * word there is a moment in which the noise stands as it was under the word, and then it drops in all bands by
 * the same amount and stands again. Words die away differently in every band, and rooms keep falling.
 */
export class GatedNoise {
  private readonly steps: number[] = [];
  private pauses = 0;

  settle({ tracks, quiet, startS, endS }: Chapter): void {
    const { highBands } = tracks;
    const { hopS } = highBands;
    const width = Math.min(COLUMNS[1], highBands.bands.length) - COLUMNS[0];
    const times = highBands.times();
    if (width < 6 || times.length === 0) return;
    const levels = Array.from({ length: width }, (_, band) => highBands.sums(COLUMNS[0] + band, COLUMNS[0] + band + 1).map((power) => 10 * Math.log10(Math.max(power, 1e-14))));
    const sums = levels.map(runningSums);
    const whole = (sums[0] as Float64Array).map((_, frame) => sums.reduce((sum, band) => sum + (band[frame] as number), 0) / sums.length);
    const loud = levels.map((band) => quantile(Float64Array.from(band).sort(), 0.9));
    const frame = (timeS: number) => Math.round((timeS - (times[0] as number)) / hopS);
    for (const [from, to] of quiet) {
      if (from <= startS || to >= endS - hopS || to - from < PLATEAU_S + 0.1) continue;
      this.pauses++;
      const step = deepestStep({ sums, whole, loud }, Math.max(0, frame(from - BEFORE_S)), Math.min(times.length, frame(Math.min(from + AFTER_S, to))), frame(to) - 2, hopS);
      if (step !== null) this.steps.push(step);
    }
  }

  /** Null where nothing of the kind is at work. */
  gatedDb(): number | null {
    if (this.steps.length < LEAST_STEPS || this.steps.length < LEAST_SHARE * this.pauses) return null;
    return quantile(Float64Array.from(this.steps).sort(), 0.5);
  }
}

/** Levels of some bands as sums of all before each frame, their mean likewise, and what the loudest tenth of each passes. */
interface BandLevels {
  sums: readonly Float64Array[];
  whole: Float64Array;
  loud: readonly number[];
}

/** The deepest drop from one standing level to another that all bands make together, and after which nothing falls any more. */
function deepestStep({ sums, whole, loud }: BandLevels, from: number, to: number, pauseEnd: number, hopS: number): number | null {
  const plateau = Math.max(3, Math.round(PLATEAU_S / hopS));
  let deepest: number | null = null;
  for (const closingS of CLOSING_S) {
    const closing = Math.max(1, Math.round(closingS / hopS));
    for (let at = from + plateau; at + closing + plateau <= Math.min(to + plateau, pauseEnd); at += 2) {
      const after = at + closing;
      if (meanBetween(whole, at - plateau, at) - meanBetween(whole, after, after + plateau) < LEAST_STEP_DB - MOST_UNLIKE_DB) continue;
      const drops = Float64Array.from(sums, (band) => meanBetween(band, at - plateau, at) - meanBetween(band, after, after + plateau)).sort();
      const drop = quantile(drops, 0.5);
      if (drop < LEAST_STEP_DB || (deepest !== null && drop <= deepest)) continue;
      if (quantile(drops, 0.85) - quantile(drops, 0.15) > 2 * MOST_UNLIKE_DB) continue;
      const under = quantile(Float64Array.from(sums, (band, index) => (loud[index] as number) - meanBetween(band, at - plateau, at)).sort(), 0.5);
      if (under < UNDER_VOICE_DB) continue;
      const half = Math.max(1, plateau >> 1);
      const slopes = (start: number) =>
        quantile(Float64Array.from(sums, (band) => Math.abs(meanBetween(band, start, start + half) - meanBetween(band, start + plateau - half, start + plateau))).sort(), 0.5);
      const settled = quantile(
        Float64Array.from(sums, (band) => meanBetween(band, after, after + plateau) - meanBetween(band, Math.max(after, pauseEnd - 2 * plateau), pauseEnd)).sort(),
        0.5,
      );
      const standing = Math.max(STANDING_DB, STANDING_SHARE * drop);
      if (slopes(at - plateau) > standing || slopes(after) > standing || Math.abs(settled) > SETTLED_DB) continue;
      deepest = drop;
    }
  }
  return deepest;
}
