import type { Chapter } from '../chapter.types.ts';
import type { AudioEvent, Span } from '../report.types.ts';
import { insideSpans, spansAbove } from '../spans.ts';
import type { BandTrack } from '../tracks/bandTrack.ts';
import { FRAME_S, NOTHING_DB, quantile, smoothedDb, usualLevel } from '../tracks/frames.ts';

/** How far low sound must rise over its usual quiet to be an event. */
const OVER_QUIET_DB = 14;
/** Low sound this far under the fundamental's range is a voice's own. */
const VOICED_DB = 5;
/** Between words it must come up by this much more than the rest of the sound. */
const OVER_BALANCE_DB = 9;
/** Low sound this far over the voice is an event, however long it has been going on. */
const OVER_VOICE_DB = 3;
/** A low event this far under the voice disturbs nobody. */
const UNDER_VOICE_DB = 14;
/** A short one is worth a name when it is within this of the voice, and of all the sound of its moment. */
const SHORT_UNDER_VOICE_DB = 6;
const SHORT_UNDER_SOUND_DB = 7;
/** Smoothing alone makes anything last this long. */
const SHORTEST_BURST_S = 0.03;
/** Wind lasts; a thump or a plosive is over by then. */
const SHORTEST_GUST_S = 0.18;
/** Longest stretch for which a voice may cover low sound. */
const COVERED_S = 0.15;
/** A plosive comes with the start of a sound: nearly nothing just before, much more just after. */
const ONSET_RISE_DB = 10;
const GAP_BEFORE_S = 0.055;
const GAP_AFTER_S = 0.035;
const AFTER_S = 0.11;
/** What comes after is a voice, what is before is not. */
const AFTER_UNDER_VOICE_DB = 13;
const GAP_UNDER_VOICE_DB = 12;
/** In wind, short puffs are wind too. */
const WINDY_S = 3;
const ONSET_REACH_S = 0.12;

/**
 * Wind, handling and plosives: bursts of sound under 60 Hz, where hardly any voice is. Long and fluctuating is
 * wind. Short is a thump, or, where a word or a sound within a word begins with it, a plosive.
 */
export function findLowBursts({ tracks, weighted, speech, startS }: Chapter): AudioEvent[] {
  const powers = tracks.sub.view().subarray(0, weighted.length);
  if (powers.length < 20) return [];
  const chest = smoothedDb(tracks.chest.view(), 3);
  // Where a voice is, its fundamental is the stronger; air and knocks have more below it.
  const raw = smoothedDb(powers, 3);
  const levels = raw.map((level, frame) => (level > (chest[frame] ?? -150) - VOICED_DB ? level : -150));
  const usual = usualLevel(smoothedDb(powers, 11), 0.35);
  const voice = voiceLevel(weighted, speech, startS);
  const sound = smoothedDb(weighted, 3);
  const spoken = insideSpans(
    raw.map((_, frame) => startS + (frame + 0.5) * FRAME_S),
    speech,
    0,
  );
  const balance = raw.map((level, frame) => level - (sound[frame] ?? -150));
  const usualBalance = quantile(Float64Array.from(balance.filter((_, frame) => !spoken[frame] && (sound[frame] as number) > NOTHING_DB)).sort(), 0.5);
  // Room tone that comes up as a whole has been turned up; only what comes up below is an event.
  for (let frame = 0; frame < levels.length; frame++) if (!spoken[frame] && (balance[frame] as number) < usualBalance + OVER_BALANCE_DB) levels[frame] = -150;
  const on = voice === null ? Math.max(-90, usual + OVER_QUIET_DB) : Math.max(voice - UNDER_VOICE_DB, Math.min(usual + OVER_QUIET_DB, voice + OVER_VOICE_DB));
  const onsets = voiceLevels(tracks.highBands, speech);
  const joined = joinBursts(spansAbove(levels, on, on - 4, FRAME_S), raw, on - 6).filter(([from, to]) => to - from >= SHORTEST_BURST_S - 1e-9);
  return joinWind(
    joined.map(([from, to]): AudioEvent => {
      const peak = peakIn(raw, from, to);
      const long = to - from >= SHORTEST_GUST_S;
      const kind = long ? 'wind' : isOnset(onsets, startS + from) && inWord(speech, startS + from, startS + to) ? 'plosive' : 'handling';
      return { kind, startS: startS + from, endS: startS + to, severityDb: peak - (voice ?? usual) };
    }),
  ).filter(({ kind, startS: from, endS: to, severityDb }) => {
    const underSoundDb = peakIn(sound, from - startS, to - startS) - (severityDb + (voice ?? usual));
    return kind === 'wind' || (severityDb >= -SHORT_UNDER_VOICE_DB && underSoundDb <= SHORT_UNDER_SOUND_DB);
  });
}

/** Bursts with a gap in which a voice covers them, but the low sound goes on, are one. */
function joinBursts(spans: readonly Span[], raw: Float64Array, least: number): Span[] {
  const out: Span[] = [];
  for (const span of spans) {
    const last = out.at(-1);
    const gap = last ? raw.subarray(Math.round(last[1] / FRAME_S), Math.round(span[0] / FRAME_S)) : null;
    if (last && gap && gap.length <= COVERED_S / FRAME_S && gap.every((level) => level >= least)) last[1] = span[1];
    else out.push([...span]);
  }
  return out;
}

function peakIn(levels: Float64Array, fromS: number, toS: number): number {
  return levels.subarray(Math.round(fromS / FRAME_S), Math.round(toS / FRAME_S)).reduce((most, level) => Math.max(most, level), -150);
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

/** Level of the voice's own range over time, where air and knocks have little. */
interface VoiceLevels {
  times: Float64Array;
  levels: Float64Array;
  /** Mean level of words. */
  usual: number;
}

function voiceLevels(bands: BandTrack, speech: readonly Span[]): VoiceLevels {
  const times = bands.times();
  const powers = bands.sums(0, Math.min(6, bands.bands.length));
  const spoken = insideSpans(times, speech, 0);
  const inWords = powers.filter((_, frame) => spoken[frame]);
  const mean = inWords.reduce((sum, power) => sum + power, 0) / Math.max(1, inWords.length);
  return { times, levels: powers.map((power) => 10 * Math.log10(Math.max(power, 1e-15))), usual: 10 * Math.log10(Math.max(mean, 1e-15)) };
}

/** Whether a voice begins with a burst: a gap just before or as it starts, soon after it a voice, which outlasts a tap. */
function isOnset({ times, levels, usual }: VoiceLevels, atS: number): boolean {
  let gap = Number.POSITIVE_INFINITY;
  let after = Number.NEGATIVE_INFINITY;
  times.forEach((time, frame) => {
    if (time < atS - GAP_BEFORE_S || time > atS + AFTER_S) return;
    const level = levels[frame] as number;
    if (time < atS + GAP_AFTER_S && level < gap) {
      gap = level;
      after = Number.NEGATIVE_INFINITY;
    } else after = Math.max(after, Math.min(level, levels[frame - 1] ?? level));
  });
  return after - gap >= ONSET_RISE_DB && gap < usual - GAP_UNDER_VOICE_DB && after > usual - AFTER_UNDER_VOICE_DB;
}

/** Puffs near a gust belong to it. */
function joinWind(events: readonly AudioEvent[]): AudioEvent[] {
  const gusts = events.filter(({ kind }) => kind === 'wind');
  const out: AudioEvent[] = [];
  for (const event of events) {
    const windy = gusts.some((gust) => gust.startS < event.endS + WINDY_S && gust.endS > event.startS - WINDY_S);
    const each: AudioEvent = windy ? { ...event, kind: 'wind' } : event;
    const last = out.findLast(({ kind }) => kind === 'wind');
    if (windy && last && each.startS - last.endS < WINDY_S / 2) {
      last.endS = each.endS;
      last.severityDb = Math.max(last.severityDb, each.severityDb);
    } else out.push({ ...each });
  }
  return out;
}

/** Whether a word is going on, or begins within a moment. */
function inWord(speech: readonly Span[], fromS: number, toS: number): boolean {
  return speech.some(([start, end]) => start < toS + ONSET_REACH_S && end > fromS + 0.05 && end - start > 0.12);
}
