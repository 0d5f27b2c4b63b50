import type { Chapter } from '../chapter.ts';
import type { AudioEvent, Span } from '../report.types.ts';
import { joinSpans, spansAbove } from '../spans.ts';
import { FRAME_S, quantile, smoothedDb } from '../tracks/frames.ts';

/** How far low sound must rise over its usual quiet to be an event. */
const OVER_QUIET_DB = 10;
/** A low event this far under the voice disturbs nobody. */
const UNDER_VOICE_DB = 22;
/** Wind lasts; a thump or a plosive is over by then. */
const SHORTEST_GUST_S = 0.28;
const GUST_GAP_S = 0.2;
/** A plosive comes with the start of a sound: the voice rises by this much around it. */
const ONSET_RISE_DB = 6;
const ONSET_BEFORE_S = 0.06;
const ONSET_AFTER_S = 0.12;

/**
 * Wind, handling and plosives: bursts of sound under 70 Hz, where no voice is. Long and fluctuating is
 * wind. Short is a thump, or, where a word or a sound within a word begins with it, a plosive.
 */
export function findLowBursts({ tracks, weighted, speech, startS }: Chapter): AudioEvent[] {
  const powers = tracks.sub.view().subarray(0, weighted.length);
  if (powers.length < 20) return [];
  const levels = smoothedDb(powers, 3);
  const usual = quantile(Float64Array.from(smoothedDb(powers, 11)).sort(), 0.25);
  const voice = voiceLevel(weighted, speech, startS);
  const on = Math.max(usual + OVER_QUIET_DB, voice === null ? -90 : voice - UNDER_VOICE_DB);
  const sound = smoothedDb(weighted, 3);
  const spans = joinSpans(spansAbove(levels, on, on - 4, FRAME_S), 0.03);
  const joined = joinGusts(spans, levels);
  return joined.map(([from, to]): AudioEvent => {
    const peak = peakIn(levels, from, to);
    const long = to - from >= SHORTEST_GUST_S;
    const kind = long ? 'wind' : isOnset(sound, from, peak.atS) && inWord(speech, startS + from, startS + to) ? 'plosive' : 'handling';
    return { kind, startS: startS + from, endS: startS + to, severityDb: peak.levelDb - (voice ?? usual) };
  });
}

/** A gust comes in puffs: low bursts in a row, none of them a lone thump, are one. */
function joinGusts(spans: readonly Span[], levels: Float64Array): Span[] {
  const groups = joinSpans(spans, GUST_GAP_S);
  return groups.flatMap((group): Span[] => {
    const parts = spans.filter(([from, to]) => from >= group[0] - 1e-9 && to <= group[1] + 1e-9);
    const active = parts.reduce((sum, [from, to]) => sum + to - from, 0);
    const longest = Math.max(...parts.map(([from, to]) => to - from));
    const gusty = longest >= SHORTEST_GUST_S || (parts.length >= 3 && active >= SHORTEST_GUST_S && peakIn(levels, ...group).levelDb > -200);
    return gusty ? [group] : parts;
  });
}

function peakIn(levels: Float64Array, fromS: number, toS: number): { levelDb: number; atS: number } {
  let best = Math.round(fromS / FRAME_S);
  for (let index = best; index < Math.min(levels.length, Math.round(toS / FRAME_S)); index++) if ((levels[index] as number) > (levels[best] as number)) best = index;
  return { levelDb: levels[best] ?? -150, atS: best * FRAME_S };
}

function voiceLevel(weighted: Float64Array, speech: readonly Span[], startS: number): number | null {
  let sum = 0;
  let count = 0;
  for (const [from, to] of speech) {
    for (let index = Math.round((from - startS) / FRAME_S); index < Math.min(weighted.length, Math.round((to - startS) / FRAME_S)); index++) {
      sum += weighted[index] as number;
      count++;
    }
  }
  return count > 0 && sum > 0 ? 10 * Math.log10(sum / count) : null;
}

/** Whether the sound rises around the start of a burst. */
function isOnset(sound: Float64Array, fromS: number, peakS: number): boolean {
  const first = Math.round((fromS - ONSET_BEFORE_S) / FRAME_S);
  const at = Math.round(fromS / FRAME_S);
  const last = Math.round((Math.max(fromS, peakS) + ONSET_AFTER_S) / FRAME_S);
  let before = Number.POSITIVE_INFINITY;
  for (let index = Math.max(0, first); index <= Math.min(at + 3, sound.length - 1); index++) before = Math.min(before, sound[index] as number);
  let after = Number.NEGATIVE_INFINITY;
  for (let index = at; index <= Math.min(last, sound.length - 1); index++) after = Math.max(after, sound[index] as number);
  return after - before >= ONSET_RISE_DB;
}

/** Whether a word is going on, or begins within a moment. */
function inWord(speech: readonly Span[], fromS: number, toS: number): boolean {
  return speech.some(([start, end]) => start < toS + ONSET_AFTER_S && end > fromS + 0.05 && end - start > 0.12);
}
