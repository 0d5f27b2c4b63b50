import type { Heard } from '../chapter.types.ts';
import { VOICE } from '../findWords.ts';
import type { AudioEvent, Span } from '../report.types.ts';
import { insideSpans, joinSpans } from '../spans.ts';
import { FRAME_S, frameTimesS, NOTHING_DB, quantile, smoothedDb } from '../tracks/frames.ts';
import type { LikelyMoments } from './namer.ts';
import { againstVoiceDb, voiceLevelDb } from './severity.ts';
import { STANDOUT_KINDS, type StandoutKind } from './standoutKinds.ts';
import { Surroundings } from './surroundings.ts';

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

/** It stands out by this much of what the quiet around it seldom passes; wind and breath need not. */
const OVER_USUAL_DB = 5;
/** Columns of the high track where cloth is judged. */
const HISS_COLUMNS = [11, 16] as const;
const LEAST_QUIET_FRAMES = 50;

/** So far over the quiet, and so unlikely a voice, that it is something. */
const FAR_OUT_DB = 11;
const NO_VOICE = 0.25;
/** Its name is sure when it is so many times as likely as the next, and this likely at all. */
const CLEARLY = 2;
const LEAST_LIKELY = 0.04;

/**
 * Stretches that are no word and stand out of their surroundings: found where anything is likely, named
 * after what is the likeliest in them. Where two names are nearly as likely it is a disturbance.
 */
export function findStandouts(chapter: Heard, moments: LikelyMoments): AudioEvent[] {
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
      .map(([startS, endS]) => ({ kind, startS, endS, severityDb: againstVoiceDb(chapter, kind, startS, endS, voiceDb) }));
  });
  const { tracks, weighted, quiet, startS } = chapter;
  const tens = frameTimesS(weighted.length, startS);
  const around: Record<StandoutKind, Surroundings | null> = {
    wind: null,
    plosive: null,
    handling: new Surroundings(tracks.low.view().subarray(0, weighted.length), tens, FRAME_S, quiet),
    rustle: new Surroundings(tracks.highBands.sums(...HISS_COLUMNS), timesS, hopS, quiet),
    disturbance: new Surroundings(weighted, tens, FRAME_S, quiet),
  };
  const outstanding = events.filter(
    (event) => event.severityDb >= LEAST_DB[event.kind] && (around[event.kind]?.overUsualDb(event.startS, event.endS) ?? OVER_USUAL_DB) >= OVER_USUAL_DB,
  );
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
function voiceless({ weighted, quiet, startS }: Heard, { timesS, hopS, likely }: LikelyMoments, known: readonly Spell[]): Spell[] {
  const levels = smoothedDb(weighted, 3);
  const times = frameTimesS(levels.length, startS);
  const still = insideSpans(times, quiet, 0);
  const usual = levels.filter((level, frame) => still[frame] && level > NOTHING_DB).sort();
  if (usual.length < LEAST_QUIET_FRAMES || !likely.voice.some((value) => value > VOICE)) return [];
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
