import type { PerformanceSource } from '../contract/recordings.ts';
import type { Span } from '../measure/report.types.ts';

/** What the part that is judged is found from. */
export interface PerformanceClues {
  /** Stretches of words, in seconds of the file. */
  speech: readonly Span[];
  lengthS: number;
  /** Marked by hand. */
  marked: Span | null;
  /** When the log says that the performance began, in seconds of the file; null when it does not. */
  logStartS: number | null;
  /** Whether that is known to a few seconds only, as where a clock was found: then it is no place to begin in the middle of words. */
  logIsRough: boolean;
  /** Whether a slate is spoken before the words; unknown counts as not. */
  slateSpoken: boolean;
}

/** Words this near to each other are one utterance. */
const UTTERANCE_GAP_S = 0.25;
/** A slate is over when a pause follows that is longer than this, and longer than those within the text. */
const LEAST_SLATE_PAUSE_S = 0.5;
const LONGER_BY = 1.25;
/** A slate is said in the first part of a take, and is shorter than what it announces. */
const LONGEST_SLATE_S = 12;

/**
 * The part of a recording that is judged, and why: what a hand marked; else from where the log says; else,
 * where slates are spoken, from after the first utterance that is followed by a pause longer than those
 * within the text; else from the first word. It ends with the last word. Without words it is all.
 * @example findPerformance({ speech: [[0.5, 1.5], [3, 6], [6.4, 9]], slateSpoken: true, ... }).span // [3, 9]
 */
export function findPerformance({ speech, lengthS, marked, logStartS, logIsRough, slateSpoken }: PerformanceClues): { span: Span; by: PerformanceSource } {
  if (marked) return { span: [Math.max(0, marked[0]), Math.min(lengthS, marked[1])], by: 'hand' };
  const last = speech.at(-1);
  if (!last) return { span: [0, lengthS], by: 'whole' };
  const from = (startS: number, by: PerformanceSource): { span: Span; by: PerformanceSource } => ({ span: [startS, last[1]], by });
  if (logStartS !== null && logStartS < last[1]) {
    const next = speech.find(([, endS]) => endS > logStartS);
    const nextS = next?.[0] ?? logStartS;
    return from(logIsRough ? nextS : Math.max(logStartS, nextS), 'log');
  }
  const after = slateSpoken ? afterSlate(speech) : null;
  return after === null ? from((speech[0] as Span)[0], 'words') : from(after, 'slate');
}

/** Start of the first words after a spoken slate; null where none is told. */
function afterSlate(speech: readonly Span[]): number | null {
  const utterances: Span[] = [];
  for (const [startS, endS] of speech) {
    const before = utterances.at(-1);
    if (before && startS - before[1] < UTTERANCE_GAP_S) before[1] = endS;
    else utterances.push([startS, endS]);
  }
  const gaps = utterances.slice(1).map(([startS], index) => startS - (utterances[index] as Span)[1]);
  const begin = (utterances[0] as Span)[0];
  for (const [index, gapS] of gaps.entries()) {
    const slateS = (utterances[index] as Span)[1] - begin;
    if (slateS > LONGEST_SLATE_S) return null;
    const within = Math.max(0, ...gaps.slice(index + 1));
    if (gapS >= LEAST_SLATE_PAUSE_S && (gapS >= within * LONGER_BY || within === 0)) return (utterances[index + 1] as Span)[0];
  }
  return null;
}
