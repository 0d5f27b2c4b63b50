import type { Chapter } from '../chapter.types.ts';
import { VOICE } from '../findWords.ts';
import type { AudioEvent, Span } from '../report.types.ts';
import { insideSpans, joinSpans } from '../spans.ts';
import { FRAME_S, meanOf, NOTHING_DB, quantile, smoothedDb } from '../tracks/frames.ts';
import { type Likely, STANDOUT_KINDS, type StandoutKind } from './namer.ts';

/** An event begins where something is this likely, and goes on while it is half as likely. */
const ON: Record<StandoutKind, number> = { wind: 0.5, handling: 0.4, rustle: 0.4, disturbance: 0.35, plosive: 0.5 };
const OFF_SHARE = 0.5;
/** Gusts and strokes come and go; what is nearer to each other than this is one. */
const GAP_S: Record<StandoutKind, number> = { wind: 0.6, handling: 0.06, rustle: 0.25, disturbance: 0.25, plosive: 0.05 };
const SHORTEST_S: Record<StandoutKind, number> = { wind: 0.15, handling: 0.02, rustle: 0.08, disturbance: 0.06, plosive: 0.015 };
/** What is further than this under the voice disturbs nobody. */
const LEAST_DB: Record<StandoutKind, number> = { wind: -20, handling: -9, rustle: -25, disturbance: -25, plosive: -9 };
/** A name is sure when it has this share of all that is likely. */
const SURE_SHARE = 0.55;

/** It stands out by this much of what the quiet around it seldom passes. */
const OVER_AROUND_DB = 5;
const AROUND_S = 5;
const USUAL_SHARE = 0.85;
const LEAST_AROUND = 50;
const HISS_COLUMNS = [11, 16] as const;

/** So far over the quiet, and so unlikely a voice, that it is something. */
const FAR_OUT_DB = 11;
const NO_VOICE = 0.25;
/** Its name is sure when it is so many times as likely as the next, and this likely at all. */
const CLEARLY = 2;
const LEAST_LIKELY = 0.04;

/** What the moments of a chapter are. */
export interface Moments {
  timesS: Float64Array;
  hopS: number;
  likely: Likely;
}

/**
 * Stretches that are no word and stand out of their surroundings: found where anything is likely, named
 * after what is the likeliest in them. Where two names are nearly as likely it is a disturbance.
 */
export function findStandouts(chapter: Chapter, moments: Moments): AudioEvent[] {
  const { timesS, hopS, likely } = moments;
  const voiceDb = voiceLevelDb(chapter);
  const spells: Spell[] = [];
  for (const kind of STANDOUT_KINDS) {
    const values = likely[kind];
    for (const [from, to] of spellsOf(values, ON[kind])) {
      let sum = 0;
      for (let frame = from; frame < to; frame++) sum += values[frame] as number;
      spells.push({ span: [(timesS[from] as number) - hopS / 2, (timesS[to - 1] as number) + hopS / 2], kind, sum });
    }
  }
  const named = [...spells.map((spell) => ({ ...spell, kind: sureName(spell, spells) })), ...voiceless(chapter, moments, spells)];
  const events = STANDOUT_KINDS.flatMap((kind) => {
    const spans = named.filter((spell) => spell.kind === kind).map(({ span }): Span => [Math.max(chapter.startS, span[0]), Math.min(chapter.endS, span[1])]);
    return joinSpans(
      spans.sort((a, b) => a[0] - b[0]),
      GAP_S[kind],
    )
      .filter(([from, to]) => to - from >= SHORTEST_S[kind] - 1e-9)
      .map(([startS, endS]) => ({ kind, startS, endS, severityDb: severityDb(chapter, kind, startS, endS, voiceDb) }));
  });
  const outstanding = events.filter((event) => isOutstanding(chapter, event));
  return outstanding.filter((event) => !outstanding.some((other) => other !== event && covers(other, event)));
}

/** A stretch and what it may be, with how likely that is over its whole length. */
interface Spell {
  span: Span;
  kind: StandoutKind;
  sum: number;
}

/**
 * Stretches that stand far out of the quiet and hold no voice, whatever they are: things that are like nothing
 * the trees were grown from. They get the name that is clearly likelier than the others, if one is.
 */
function voiceless({ weighted, quiet, startS }: Chapter, { timesS, hopS, likely }: Moments, known: readonly Spell[]): Spell[] {
  const levels = smoothedDb(weighted, 3);
  const times = Float64Array.from(levels, (_, frame) => startS + (frame + 0.5) * FRAME_S);
  const still = insideSpans(times, quiet, 0);
  const usual = levels.filter((level, frame) => still[frame] && level > NOTHING_DB).sort();
  if (usual.length < LEAST_AROUND || !likely.voice.some((value) => value > VOICE)) return [];
  const threshold = quantile(usual, 0.5) + FAR_OUT_DB;
  const levelAt = (frame: number) => levels[Math.round(((timesS[frame] as number) - startS) / FRAME_S - 0.5)] ?? NOTHING_DB;
  const out: Spell[] = [];
  for (let frame = 0; frame < timesS.length; frame++) {
    const isVoiceless = (at: number) => at < timesS.length && (likely.voice[at] as number) < NO_VOICE && levelAt(at) > threshold;
    if (!isVoiceless(frame)) continue;
    const from = frame;
    while (isVoiceless(frame + 1)) frame++;
    const span: Span = [(timesS[from] as number) - hopS / 2, (timesS[frame] as number) + hopS / 2];
    if (span[1] - span[0] < SHORTEST_S.disturbance || known.some((spell) => spell.span[0] < span[1] + GAP_S.disturbance && spell.span[1] > span[0] - GAP_S.disturbance)) continue;
    const sums = STANDOUT_KINDS.map((kind) => ({ kind, sum: likely[kind].subarray(from, frame + 1).reduce((sum, value) => sum + value, 0) })).sort((a, b) => b.sum - a.sum);
    const [first, second] = sums as [Omit<Spell, 'span'>, Omit<Spell, 'span'>];
    out.push({ span, sum: first.sum, kind: first.sum > CLEARLY * second.sum && first.sum > LEAST_LIKELY * (frame + 1 - from) ? first.kind : 'disturbance' });
  }
  return out;
}

/** Whether it lies over what is usual between words around it: beats of music and steps of passers-by are the place's own. */
function isOutstanding(chapter: Chapter, { kind, startS, endS, severityDb }: AudioEvent & { kind: StandoutKind }): boolean {
  if (severityDb < LEAST_DB[kind]) return false;
  if (kind === 'wind' || kind === 'plosive') return true;
  const powers = kind === 'handling' ? chapter.tracks.low.view() : chapter.weighted;
  const frame = (timeS: number) => Math.round((timeS - chapter.startS) / FRAME_S);
  const around: number[] = [];
  for (const [from, to] of chapter.quiet) {
    for (let index = Math.max(frame(from), frame(startS - AROUND_S)); index < Math.min(frame(to), frame(endS + AROUND_S), powers.length); index++)
      around.push(powers[index] as number);
  }
  if (kind === 'rustle' && !overUsualHiss(chapter, startS, endS)) return false;
  if (around.length < LEAST_AROUND) return true;
  const usual = 10 * Math.log10(Math.max(quantile(Float64Array.from(around).sort(), USUAL_SHARE), 1e-15));
  const levels = smoothedDb(powers.subarray(Math.max(0, frame(startS) - 1), frame(endS) + 1), 3);
  return levels.reduce((most, level) => Math.max(most, level), -150) > usual + OVER_AROUND_DB;
}

/** Cloth stands out in its own range: hats and shakers of music that is played around it come and go there as well. */
function overUsualHiss({ tracks, quiet }: Chapter, startS: number, endS: number): boolean {
  const bands = tracks.highBands;
  const times = bands.times();
  const powers = bands.sums(...HISS_COLUMNS);
  const near = insideSpans(times, [[startS - AROUND_S, endS + AROUND_S]], 0);
  const still = insideSpans(times, quiet, 0);
  const around = powers.filter((_, frame) => near[frame] && still[frame] && !((times[frame] as number) > startS && (times[frame] as number) < endS)).sort();
  if (around.length < LEAST_AROUND) return true;
  const most = powers.reduce(
    (peak, power, frame) => ((times[frame] as number) >= startS - bands.hopS && (times[frame] as number) <= endS + bands.hopS ? Math.max(peak, power) : peak),
    0,
  );
  return most > quantile(around, USUAL_SHARE) * 10 ** (OVER_AROUND_DB / 10);
}

/** Runs of frames that pass a threshold and stay over its half. */
function spellsOf(values: Float64Array, on: number): [from: number, to: number][] {
  const out: [number, number][] = [];
  for (let frame = 0; frame < values.length; frame++) {
    if ((values[frame] as number) < on) continue;
    let from = frame;
    while (from > 0 && (values[from - 1] as number) >= on * OFF_SHARE && from - 1 >= (out.at(-1)?.[1] ?? 0)) from--;
    while (frame + 1 < values.length && (values[frame + 1] as number) >= on * OFF_SHARE) frame++;
    out.push([from, frame + 1]);
  }
  return out;
}

/** The kind that has most of a stretch; a disturbance where none has clearly most. */
function sureName(own: Spell, all: readonly Spell[]): StandoutKind {
  const rivals = all.filter((other) => other.kind !== own.kind && other.span[0] < own.span[1] && other.span[1] > own.span[0]);
  const strongest = rivals.reduce((most, other) => Math.max(most, other.sum), 0);
  return own.sum >= SURE_SHARE * (own.sum + strongest) ? own.kind : 'disturbance';
}

/** Whether one event tells all that another does: it lies over it and has a surer name. */
function covers(one: AudioEvent, other: AudioEvent): boolean {
  const overlap = Math.min(one.endS, other.endS) - Math.max(one.startS, other.startS);
  if (overlap < 0.5 * (other.endS - other.startS)) return false;
  return other.kind === 'disturbance' && one.kind !== 'disturbance';
}

/** How loud it is against the voice: what lies low for knocks and air, all that is heard for the rest. */
function severityDb({ tracks, weighted, startS }: Chapter, kind: StandoutKind, fromS: number, toS: number, voiceDb: number): number {
  const powers = kind === 'wind' || kind === 'plosive' || kind === 'handling' ? tracks.low.view() : weighted;
  const levels = smoothedDb(powers.subarray(Math.max(0, Math.round((fromS - startS) / FRAME_S) - 1), Math.round((toS - startS) / FRAME_S) + 1), 3);
  return levels.reduce((most, level) => Math.max(most, level), -150) - voiceDb;
}

/** Mean A-weighted level of the words; of the loudest moments where there are none. */
function voiceLevelDb({ weighted, speech, startS }: Chapter): number {
  const times = Float64Array.from(weighted, (_, frame) => startS + (frame + 0.5) * FRAME_S);
  const spoken = insideSpans(times, speech, 0);
  const heard = weighted.filter((_, frame) => spoken[frame]);
  if (heard.length === 0) return quantile(smoothedDb(weighted, 3).sort(), 0.95);
  return 10 * Math.log10(Math.max(1e-15, meanOf(heard, 0, heard.length)));
}
