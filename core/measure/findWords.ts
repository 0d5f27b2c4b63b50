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
/** Whether there is a voice at all: sure in this share of what is loud. Where there is none, as in a test signal, loud is all that is known of words. */
export const VOICE = 0.85;
const LEAST_VOICE_SHARE = 0.1;

/**
 * Takes out what is loud but no word: wind, cloth, knocks, doors.
 * @param voice how likely a voice is at each of `timesS`, from the start of the words
 */
export function withoutNoises(words: readonly Span[], timesS: Float64Array, voice: Float64Array, hopS: number): Span[] {
  const loud = insideSpans(timesS, words, 0);
  let frames = 0;
  let spoken = 0;
  for (let frame = 0; frame < voice.length; frame++) {
    if (!loud[frame]) continue;
    frames++;
    if ((voice[frame] as number) >= VOICE) spoken++;
  }
  if (frames === 0 || spoken < LEAST_VOICE_SHARE * frames) return [...words];
  const voiceless: Span[] = [];
  for (let frame = 0; frame < voice.length; frame++) {
    if ((voice[frame] as number) >= NO_VOICE) continue;
    const from = frame;
    while (frame + 1 < voice.length && (voice[frame + 1] as number) < NO_VOICE) frame++;
    voiceless.push([(timesS[from] as number) - hopS / 2, (timesS[frame] as number) + hopS / 2]);
  }
  const noises = voiceless.filter(([from, to]) => to - from >= LONGEST_DOUBT_S);
  return withoutSpans(words, noises, SHORTEST_WORD_S);
}
