import { powerDb } from '../audio/decibel.ts';
import type { Chapter } from './chapter.types.ts';
import type { ChannelContext, Family, Finished, Warn } from './family.ts';
import { GatedNoise } from './gatedNoise.ts';
import { humPower } from './hum.ts';
import { quasiPeak468 } from './quasiPeak468.ts';
import type { AudioEvent, NoiseGroup, Span } from './report.types.ts';
import { insideSpans, joinSpans } from './spans.ts';
import { FRAME_S, frameTimesS, NOTHING_DB } from './tracks/frames.ts';

/** Kept off both ends of a pause, so that the beginning of a word does not count as noise. */
const GUARD_S = 0.03;
/** Kept off its end while enough is left: breath and lips come before a word is told. */
const BREATH_S = 0.12;
const LEFT_S = 0.15;
const LEAST_LEFT_S = 0.1;
/** With this much of rung-out pauses those in which the room still rings are left out. */
const ENOUGH_FRAMES = 50;
/** A quasi-peak reading needs a second or two; more of the same noise does not change it. */
const LOOKED_AT_S = 8;
/** Of words with nothing over them, to know the voice by. */
const LEAST_CLEAR_FRAMES = 30;
/** What lies over words is noise where it is so many times what chance would make of as many syllables. */
const SURE = 2;
const SYLLABLE_FRAMES = 12;
/** Of fewer syllables one may be the loudest of all: then only what is far over the words counts. */
const FEW_SYLLABLES = 3;
const FAR_OVER = 10;
const NOTHING = 10 ** (NOTHING_DB / 10);

/**
 * Levels of what is no word. The floor is that of calm pauses, once the room has rung out; `noiseDbfsA` is the
 * energy mean of everything between words, gusts and knocks included, which is what an editor has to live with.
 */
export class Noise implements Family<NoiseGroup> {
  /** Pauses long enough for the room to have rung out, and all others. */
  private readonly settled = { plain: 0, weighted: 0, frames: 0 };
  private readonly short = { plain: 0, weighted: 0, frames: 0 };
  /** Everything between words, and that part of it in which nothing happens. */
  private readonly between = { weighted: 0, frames: 0 };
  private readonly still = { weighted: 0, frames: 0 };
  /** Words by themselves, and words with a gust, a knock or the like over them. */
  private readonly clear = { weighted: 0, frames: 0 };
  private readonly covered = { weighted: 0, frames: 0 };
  /** Of the covered ones, those under wind. */
  private readonly blown = { weighted: 0, frames: 0 };
  private clearSquares = 0;
  private readonly calm: Span[] = [];
  private readonly gated = new GatedNoise();

  constructor(private readonly context: ChannelContext) {}

  settle(chapter: Chapter): void {
    const { tracks, weighted, pause, startS, endS, rings } = chapter;
    const plain = tracks.moments.meanSquares();
    for (const span of pause) {
      const [from, to] = guarded(span, startS, endS, rings(span[0]));
      const rungOut = span[0] <= startS || span[1] - span[0] >= rings(span[0]) + GUARD_S + LEAST_LEFT_S;
      const into = rungOut ? this.settled : this.short;
      const first = Math.round((from - startS) / FRAME_S + 0.4);
      const end = Math.min(Math.round((to - startS) / FRAME_S - 0.4), weighted.length);
      for (let index = first; index < end; index++) {
        into.plain += plain[index] as number;
        into.weighted += weighted[index] as number;
        into.frames++;
      }
      if (to - from > FRAME_S) this.calm.push([from, to]);
    }
    this.settleAll(chapter);
    this.gated.settle(chapter);
  }

  /** Words, clear and covered, and everything else but the tails of words and digital silence. */
  private settleAll({ weighted, wordless, speech, voiceSure, events, startS }: Chapter): void {
    const times = frameTimesS(weighted.length, startS);
    const spoken = insideSpans(times, speech, 0);
    const wordlessAt = insideSpans(times, wordless, 0);
    const blows = insideSpans(times, joinedSpans(events.filter(({ kind }) => kind === 'wind')), 0);
    // Without a voice nobody knows whether what is loud is the words or lies over them, but for wind.
    const happens = voiceSure ? insideSpans(times, joinedSpans(events), 0) : blows;
    const add = (into: { weighted: number; frames: number }, power: number) => {
      into.weighted += power;
      into.frames++;
    };
    for (let frame = 0; frame < weighted.length; frame++) {
      const power = weighted[frame] as number;
      if (spoken[frame]) {
        add(happens[frame] ? this.covered : this.clear, power);
        if (!happens[frame]) this.clearSquares += power ** 2;
        if (blows[frame]) add(this.blown, power);
      } else if (wordlessAt[frame] && power > NOTHING) {
        add(this.between, power);
        if (!happens[frame]) add(this.still, power);
      }
    }
  }

  /**
   * Power of the voice and of all that is no word. The voice is that of words with nothing over them, as long as
   * there are enough; what lies over the others is noise as well, that voice taken off. Where wind lies over nearly
   * all of them nobody knows the voice (null), and what is loud there is the wind.
   */
  private voiceAndNoise(): { voice: number | null; noise: number } {
    const { between, still, clear, covered, blown } = this;
    const mean = ({ weighted, frames }: { weighted: number; frames: number }) => (frames > 0 ? weighted / frames : 0);
    const noise = mean(between);
    if (clear.frames < LEAST_CLEAR_FRAMES) {
      const words = { weighted: clear.weighted + covered.weighted, frames: clear.frames + covered.frames };
      const all = { weighted: words.weighted + between.weighted, frames: words.frames + between.frames };
      return 2 * blown.frames > words.frames ? { voice: null, noise: mean(all) } : { voice: Math.max(0, mean(words) - noise), noise };
    }
    const voice = Math.max(0, mean(clear) - (still.frames > 0 ? mean(still) : noise));
    const happened = { weighted: covered.weighted - blown.weighted, frames: covered.frames - blown.frames };
    const excess = (of: { weighted: number; frames: number }) => Math.max(0, mean(of) - voice) * of.frames;
    const over = excess(blown) + (this.moreThanChance(happened) ? excess(happened) : 0);
    const frames = between.frames + covered.frames;
    return { voice, noise: between.frames > 0 ? (between.weighted + over) / frames : 0 };
  }

  /**
   * Whether words are louder under what happens than chance makes them: a few frames of a loud vowel, at whose pop
   * something was found, are no noise. Frames of one syllable are alike, so that it counts as one. Wind needs no such
   * doubt: it lasts, and is told from all else.
   */
  private moreThanChance({ weighted, frames }: { weighted: number; frames: number }): boolean {
    const { clear } = this;
    const mean = clear.weighted / clear.frames;
    const variance = Math.max(0, this.clearSquares / clear.frames - mean ** 2);
    const syllables = Math.max(1, frames / SYLLABLE_FRAMES);
    const level = frames > 0 ? weighted / frames : 0;
    return level - mean > SURE * Math.sqrt(variance / syllables) && (syllables >= FEW_SYLLABLES || level > FAR_OVER * mean);
  }

  finish(before: Finished, warn: Warn): NoiseGroup {
    const { lengthS, options, sampleRateHz } = this.context;
    const { settled, short } = this;
    const parts = settled.frames >= ENOUGH_FRAMES ? [settled] : [settled, short];
    const frames = parts.reduce((sum, part) => sum + part.frames, 0);
    const floorDbfs = powerDb(parts.reduce((sum, part) => sum + part.plain, 0) / frames);
    const floorDbfsA = powerDb(parts.reduce((sum, part) => sum + part.weighted, 0) / frames);
    const hasWords = (before.activity?.speech.length ?? 0) > 0;
    if (hasWords && floorDbfs !== null && settled.frames === 0) warn('no pause is long enough for the room to ring out: the noise floor is an upper bound');
    const loudness = hasWords ? (before.loudness?.integratedLufs ?? null) : null;
    const practical = (floor: number | null) => (floor === null || loudness === null ? null : floor + options.targetLufs - loudness);
    const { voice: voicePower, noise } = this.voiceAndNoise();
    const voice = hasWords && noise > 0 && voicePower !== null ? powerDb(voicePower) : null;
    if (voicePower === null) warn('wind lies over nearly all words: how far the voice stands over it cannot be told');
    const noiseDbfsA = powerDb(noise);
    const heard = longestFirst(this.calm, lengthS).map(([startS, endS]) => this.context.look(startS, endS - startS));
    const hum = humPower(heard, sampleRateHz);
    if (hum === null && floorDbfs !== null) warn('no calm pause of a quarter of a second: nothing can be said of mains hum');
    return {
      floorDbfs,
      floorDbfsA,
      floorDbfs468: floorDbfs === null ? null : quasiPeak468(heard, sampleRateHz),
      practicalFloorDbfs: practical(floorDbfs),
      practicalFloorDbfsA: practical(floorDbfsA),
      noiseDbfsA,
      snrDb: voice === null || noiseDbfsA === null ? null : voice - noiseDbfsA,
      calmSnrDb: voice === null || floorDbfsA === null ? null : voice - floorDbfsA,
      humDbfs: hum === null ? null : powerDb(hum),
      gatedDb: this.gated.gatedDb(),
    };
  }
}

/** Where anything happens, each moment once. */
function joinedSpans(events: readonly AudioEvent[]): Span[] {
  return joinSpans(
    events.map(({ startS, endS }): Span => [startS, endS]).sort((a, b) => a[0] - b[0]),
    0,
  );
}

/** A pause without what touches words; where it touches the start or the end of the file nothing is taken off. */
function guarded([startS, endS]: Span, firstS: number, lastS: number, ringingS: number): Span {
  const spare = endS - startS - LEFT_S;
  const breath = endS < lastS - 1e-6 ? Math.min(BREATH_S, Math.max(GUARD_S, spare - ringingS)) : 0;
  const ringing = startS > firstS ? Math.min(ringingS, Math.max(GUARD_S, spare - breath)) : 0;
  return [startS + ringing, endS - breath];
}

/** The longest of the calm stretches, up to {@link LOOKED_AT_S} of them, in order of time. */
function longestFirst(calm: readonly Span[], lengthS: number): Span[] {
  const sorted = [...calm].sort((a, b) => b[1] - b[0] - (a[1] - a[0]));
  const out: Span[] = [];
  let left = LOOKED_AT_S;
  for (const [startS, endS] of sorted) {
    if (left <= 0) break;
    const taken = Math.min(left, endS - startS, lengthS - startS);
    if (taken > 0) out.push([startS, startS + taken]);
    left -= taken;
  }
  return out.sort((a, b) => a[0] - b[0]);
}
