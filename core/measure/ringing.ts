import type { Chapter, Heard } from './chapter.types.ts';
import type { Span } from './report.types.ts';
import { FRAME_S, meanOf, NOTHING_DB, smoothedDb } from './tracks/frames.ts';

/** Where nobody knows how long the room rings. */
const UNKNOWN_RINGING_S = 0.3;
const LEAST_RINGING_S = 0.03;
/** Ringing is over when it is this far under the noise. */
const UNDER_NOISE_DB = 6;
const WORD_END_FRAMES = 8;
/** Kept off before a word, and left of a stretch however long the room rings. */
const BEFORE_WORD_S = 0.03;
const LEFT_S = 0.15;

/** How long the room rings on after a word: from the word's end down to under the quietest of its chapter. */
export function ringingAfter({ weighted, decayS, startS }: Pick<Chapter, 'weighted' | 'decayS' | 'startS'>): (wordEndS: number) => number {
  if (decayS === null) return () => UNKNOWN_RINGING_S;
  const levels = smoothedDb(weighted, 5);
  const heard = levels.filter((level) => level > NOTHING_DB).sort();
  const quietDb = heard[Math.floor(0.03 * heard.length)] ?? NOTHING_DB;
  return (wordEndS) => {
    const end = Math.round((wordEndS - startS) / FRAME_S);
    const power = meanOf(weighted, Math.max(0, end - WORD_END_FRAMES), Math.max(1, end));
    const fallDb = 10 * Math.log10(Math.max(power, 1e-15)) - quietDb + UNDER_NOISE_DB;
    return Math.max(LEAST_RINGING_S, (decayS * Math.max(0, fallDb)) / 60);
  };
}

/** All that is no word and no tail of a word: calm, gusts, knocks and traffic alike. */
export function wordlessSpans(quiet: readonly Span[], { startS, endS }: Pick<Heard, 'startS' | 'endS'>, rings: (wordEndS: number) => number): Span[] {
  return quiet.flatMap(([from, to]): Span[] => {
    const start = from <= startS ? from : Math.min(from + rings(from), Math.max(from + LEAST_RINGING_S, to - LEFT_S));
    const end = to >= endS - FRAME_S ? to : to - BEFORE_WORD_S;
    return end > start ? [[start, end]] : [];
  });
}
