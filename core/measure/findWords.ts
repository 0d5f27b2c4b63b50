import type { LikelyMoments } from './events/namer.ts';
import type { Span } from './report.types.ts';
import { insideSpans, joinSpans, spansAbove, withoutSpans } from './spans.ts';
import { FRAME_S, NOTHING_DB, quantile, smoothedDb } from './tracks/frames.ts';

const SMOOTH_FRAMES = 3;
const LEAST_CONTRAST_DB = 8;
export const SHORTEST_PAUSE_S = 0.15;
const SHORTEST_WORD_S = 0.06;
const HYSTERESIS_DB = 2;
/** For words hardly over the noise the level is smoothed over this many frames. */
const LONG_SMOOTH_FRAMES = 15;
/** Two classes of levels count as two when their means are this many of their own spreads apart. */
const LEAST_SEPARATION = 5;
const LEAST_STEP_DB = 2;

/** Words and pauses of a channel. Without contrast there are no words and everything is a pause. */
export interface Words {
  speech: Span[];
  pause: Span[];
  contrastDb: number;
}

/**
 * Tells words from pauses by the A-weighted level of 10 ms frames, smoothed over 30 ms; the weighting
 * keeps wind and rumble out. The threshold lies above the quiet twentieth of the frames by two fifths of
 * the span between quiet and loud, at least 4 and at most 15 dB. Gaps under 150 ms belong to the words.
 * Digital silence says nothing of the place and is left aside, unless it is all the quiet there is.
 * Where that span is too small, words may still be there if levels fall into two clearly separate classes.
 * @param powers A-weighted mean squares of 10 ms frames
 */
export function findWords(powers: Float64Array): Words {
  const levels = smoothedDb(powers, SMOOTH_FRAMES);
  const sorted = Float64Array.from(levels.filter((level) => level > NOTHING_DB)).sort();
  const quiet = quantile(sorted, 0.05);
  const contrastDb = quantile(sorted, 0.95) - quiet;
  const endS = powers.length * FRAME_S;
  if (sorted.length === 0) return { speech: [], pause: endS > 0 ? [[0, endS]] : [], contrastDb: 0 };
  // Words that stop dead in digital silence have no other quiet to stand out of.
  const silent = levels.length - sorted.length;
  const found =
    contrastDb < LEAST_CONTRAST_DB && silent >= levels.length * 0.05
      ? loudSpans(levels, NOTHING_DB + 15)
      : contrastDb < LEAST_CONTRAST_DB
        ? twoClasses(powers)
        : loudSpans(levels, quiet + Math.min(15, Math.max(4, 0.4 * contrastDb)));
  const speech = joinSpans(found, SHORTEST_PAUSE_S).filter(([start, end]) => end - start >= SHORTEST_WORD_S - 1e-9);
  return { speech, pause: withoutSpans([[0, endS]], speech, SHORTEST_PAUSE_S), contrastDb };
}

const loudSpans = (levels: Float64Array, on: number) => spansAbove(levels, on, on - HYSTERESIS_DB, FRAME_S);

/** Words hardly over the noise: the split of long-smoothed levels that parts them best, if it parts them well. */
function twoClasses(powers: Float64Array): Span[] {
  const levels = smoothedDb(powers, LONG_SMOOTH_FRAMES);
  const sorted = Float64Array.from(levels).sort();
  const sums = new Float64Array(sorted.length + 1);
  const squares = new Float64Array(sorted.length + 1);
  sorted.forEach((level, index) => {
    sums[index + 1] = (sums[index] as number) + level;
    squares[index + 1] = (squares[index] as number) + level * level;
  });
  const moments = (from: number, to: number) => {
    const mean = ((sums[to] as number) - (sums[from] as number)) / (to - from);
    return { mean, scatter: Math.max(0, (squares[to] as number) - (squares[from] as number) - (to - from) * mean * mean) };
  };
  let best = { within: Number.POSITIVE_INFINITY, threshold: 0, step: 0 };
  const margin = Math.ceil(sorted.length * 0.1);
  for (let split = margin; split < sorted.length - margin; split++) {
    const low = moments(0, split);
    const high = moments(split, sorted.length);
    const within = low.scatter + high.scatter;
    if (within < best.within) best = { within, threshold: (low.mean + high.mean) / 2, step: high.mean - low.mean };
  }
  const spread = Math.sqrt(best.within / sorted.length);
  if (best.step < LEAST_STEP_DB || best.step < LEAST_SEPARATION * spread) return [];
  return spansAbove(levels, best.threshold, best.threshold, FRAME_S);
}

/** Sound of which a voice is this unlikely, for this long, is no word. */
const NO_VOICE = 0.25;
const LONGEST_DOUBT_S = 0.12;
/** Whether there is a voice at all: sure in this share of what is loud. */
export const VOICE = 0.85;
const LEAST_VOICE_SHARE = 0.1;
/** Words begin at once, gusts swell: so much of a stretch's rise lies between these moments about its beginning. */
const RISES_AT_ONCE = 0.5;
const BEFORE_FRAMES = 5;
const AFTER_FRAMES = 7;
const RISE_SMOOTH_FRAMES = 5;

/**
 * Takes out what is loud but no word: wind, cloth, knocks, doors. Where no voice is sure anywhere, as in
 * room tone and in test signals, what is loud and begins at once is all that is known of words.
 * @param weighted A-weighted mean squares of 10 ms frames, the first of them at `startS`
 */
export function withoutNoises(words: readonly Span[], { timesS, hopS, likely }: LikelyMoments, weighted: Float64Array, startS: number): { speech: Span[]; voiceSure: boolean } {
  const loud = insideSpans(timesS, words, 0);
  const frames = loud.reduce((sum, inside) => sum + inside, 0);
  const spoken = likely.voice.reduce((sum, value, frame) => sum + (loud[frame] && value >= VOICE ? 1 : 0), 0);
  if (frames === 0) return { speech: [...words], voiceSure: false };
  if (spoken < LEAST_VOICE_SHARE * frames) {
    const levels = smoothedDb(weighted, RISE_SMOOTH_FRAMES);
    const speech = words.filter(([from, to]) => beginsAtOnce(levels, Math.round((from - startS) / FRAME_S), Math.round((to - startS) / FRAME_S)));
    return { speech, voiceSure: false };
  }
  const voiceless = spansAbove(
    likely.voice.map((value) => -value),
    -NO_VOICE,
    -NO_VOICE,
    hopS,
  )
    .filter(([from, to]) => to - from >= LONGEST_DOUBT_S)
    .map(([from, to]): Span => [from + (timesS[0] as number) - hopS / 2, to + (timesS[0] as number) - hopS / 2]);
  return { speech: withoutSpans(words, voiceless, SHORTEST_WORD_S), voiceSure: true };
}

/** Whether most of the rise of a stretch of frames comes at its beginning. What was there from the first frame on may have. */
function beginsAtOnce(levels: Float64Array, from: number, to: number): boolean {
  if (from < BEFORE_FRAMES) return true;
  const before = levels[from - BEFORE_FRAMES] as number;
  const most = levels.subarray(from, to).reduce((peak, level) => Math.max(peak, level), before);
  return (levels[Math.min(levels.length - 1, from + AFTER_FRAMES)] as number) - before >= RISES_AT_ONCE * (most - before);
}
