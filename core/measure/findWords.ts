import type { Span } from './report.types.ts';
import { joinSpans, spansAbove, withoutSpans } from './spans.ts';
import type { BandTrack } from './tracks/bandTrack.ts';
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

/** Columns of the high track that carry the voice, and those of hiss and cloth. */
const VOICE_COLUMNS = [0, 6] as const;
const HIGH_COLUMNS = [9, 15] as const;
const HIGH_EXCESS_DB = 12;
const VOICE_DEFICIT_DB = 6;

/**
 * Takes out what is loud but no word: stretches much richer in high sound than the words are as a whole,
 * and weaker than they where the voice is. Cloth and cables make such; a voice always has its low part.
 */
export function withoutBursts(words: readonly Span[], bands: BandTrack, startS: number): { speech: Span[]; bursts: Span[] } {
  const times = bands.times();
  if (words.length < 2 || bands.bands.length <= HIGH_COLUMNS[0]) return { speech: [...words], bursts: [] };
  const voice = bands.sums(...VOICE_COLUMNS);
  const high = bands.sums(HIGH_COLUMNS[0], Math.min(HIGH_COLUMNS[1], bands.bands.length));
  let frame = 0;
  const judged = words.map((span) => {
    let voiceSum = 0;
    let highSum = 0;
    let count = 0;
    for (; frame < times.length && (times[frame] as number) - startS <= span[1]; frame++) {
      if ((times[frame] as number) - startS < span[0]) continue;
      voiceSum += voice[frame] as number;
      highSum += high[frame] as number;
      count++;
    }
    return { span, voiceSum, highSum, count };
  });
  const total = judged.reduce((sum, each) => ({ voice: sum.voice + each.voiceSum, high: sum.high + each.highSum, count: sum.count + each.count }), { voice: 0, high: 0, count: 0 });
  const db = (value: number) => 10 * Math.log10(Math.max(value, 1e-20));
  // The whole is weighted by the voice, so that loud cloth does not set the measure for words.
  const usual = judged.reduce((sum, each) => sum + each.voiceSum * (db(each.highSum) - db(each.voiceSum)), 0) / Math.max(total.voice, 1e-20);
  const isBurst = (each: (typeof judged)[number]) =>
    each.count > 0 &&
    db(each.highSum) - db(each.voiceSum) > usual + HIGH_EXCESS_DB &&
    db(each.voiceSum / each.count) < db(total.voice / Math.max(1, total.count)) - VOICE_DEFICIT_DB;
  return { speech: judged.filter((each) => !isBurst(each)).map(({ span }) => span), bursts: judged.filter(isBurst).map(({ span }) => span) };
}
