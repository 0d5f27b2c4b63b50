import type { Marker } from '../domain/fileFormat.ts';
import { escaped } from '../formats/escaped.ts';
import type { Span } from '../measure/report.types.ts';

/** A stretch of a clip in a reel. */
export interface ReelPart {
  /** Which of the clips. */
  clip: number;
  /** Which phrase, counted from 0; null where clips are whole. */
  phrase: number | null;
  /** From where to where in the clip. */
  span: Span;
  /** Where it begins in the reel. */
  atS: number;
  /** Where its letter is spoken in the reel; null where gaps are silent. */
  letterAtS: number | null;
}

export interface Reel {
  parts: ReelPart[];
  lengthS: number;
}

/** Pauses that part phrases, and the least that is a phrase: two words that are heard as one are not told apart by two. */
const [PAUSE_S, PHRASE_S] = [0.35, 0.8];
/** What is heard before the first sound of a phrase, and after its last. */
const [BEFORE_S, AFTER_S] = [0.1, 0.2];
/** Silence between a spoken letter and its clip. */
const AFTER_LETTER_S = 0.4;

/**
 * Phrases of words: stretches between pauses, short ones with their neighbour.
 * @param words stretches of words in seconds of the clip
 * @example phrasesOf([[0, 1], [1.1, 2], [3, 4]], 5) // [[0, 2.2], [2.9, 4.2]]
 */
export function phrasesOf(words: readonly Span[], lengthS: number): Span[] {
  const within = words.map(([from, to]): Span => [Math.max(0, from), Math.min(lengthS, to)]).filter(([from, to]) => to > from);
  const phrases: [number, number][] = [];
  for (const [from, to] of within.sort((a, b) => a[0] - b[0])) {
    const last = phrases.at(-1);
    if (last && (from - last[1] < PAUSE_S || last[1] - last[0] < PHRASE_S)) last[1] = Math.max(last[1], to);
    else phrases.push([from, to]);
  }
  const [end, before] = [phrases.at(-1), phrases.at(-2)];
  if (end && before && end[1] - end[0] < PHRASE_S) phrases.splice(-2, 2, [before[0], end[1]]);
  return phrases.map(([from, to]): Span => [Math.max(0, from - BEFORE_S), Math.min(lengthS, to + AFTER_S)]);
}

/**
 * The order of a reel.
 * @param phrases of all clips alike; null plays each clip whole
 * @param gapS silence between parts
 * @param lettersS how long the spoken letter of each clip lasts, where it is said before its parts; null leaves gaps silent
 */
export function layReel(clips: number, lengthS: number, phrases: readonly Span[] | null, gapS: number, lettersS: readonly number[] | null = null): Reel {
  const spans: readonly Span[] = phrases ?? [[0, lengthS]];
  let atS = 0;
  const parts = spans.flatMap((span, phrase) =>
    Array.from({ length: clips }, (_, clip): ReelPart => {
      const letterAtS = lettersS ? atS : null;
      const startS = lettersS ? atS + (lettersS[clip] ?? 0) + AFTER_LETTER_S : atS;
      atS = startS + span[1] - span[0] + gapS;
      return { clip, phrase: phrases ? phrase : null, span, atS: startS, letterAtS };
    }),
  );
  return { parts, lengthS: parts.length === 0 ? 0 : atS - gapS };
}

/** What a part is called. */
export const partName = ({ clip, phrase }: ReelPart, names: readonly string[]): string => `${names[clip]}${phrase === null ? '' : `, phrase ${phrase + 1}`}`;

/** The parts as markers of the file. */
export const reelMarkers = ({ parts }: Reel, names: readonly string[]): Marker[] => parts.map((part) => ({ atS: part.atS, label: partName(part, names) }));

/** A time as WebVTT has it, hours and minutes always. */
function timestamp(seconds: number): string {
  const ms = Math.round(seconds * 1000);
  const two = (value: number) => String(value).padStart(2, '0');
  return `${two(Math.floor(ms / 3_600_000))}:${two(Math.floor(ms / 60_000) % 60)}:${two(Math.floor(ms / 1000) % 60)}.${String(ms % 1000).padStart(3, '0')}`;
}

/** The parts as chapters (W3C, WebVTT: The Web Video Text Tracks Format, 4.3). */
export function reelChapters({ parts }: Reel, names: readonly string[]): string {
  const cues = parts.map((part) => `${timestamp(part.atS)} --> ${timestamp(part.atS + part.span[1] - part.span[0])}\n${escaped(partName(part, names))}`);
  return `WEBVTT\n\n${cues.join('\n\n')}\n`;
}
