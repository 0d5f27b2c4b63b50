import { powerDb } from '../audio/decibel.ts';
import type { Chapter } from './chapter.types.ts';
import type { Family, Finished, Warn } from './family.ts';
import type { CharacterGroup, Span } from './report.types.ts';
import { insideSpans, joinSpans } from './spans.ts';
import { bandSum } from './spectrum.ts';
import { EXTRA_COLUMNS } from './tracks/channelTracks.ts';
import { FRAME_S, frameTimesS, meanOf, NOTHING_DB } from './tracks/frames.ts';

/** Third-octave bands of the high track, from 630 Hz on, that make 5 to 9 kHz. */
const SIBILANT_COLUMNS = [EXTRA_COLUMNS + 9, EXTRA_COLUMNS + 12] as const;
const LOUDEST_SHARE = 0.1;
/** Steps of the histogram of sibilant frames. */
const STEP_DB = 0.25;
const LOWEST_DB = -150;

/** After a word the room rings on; what comes then belongs to the room tone. */
const AFTER_WORD_S = 0.2;
const BEFORE_WORD_S = 0.04;
const LOOK_S = 0.1;
const NOTHING = 10 ** (NOTHING_DB / 10);
const SHORTEST_PUMPING_PAUSE_S = AFTER_WORD_S + BEFORE_WORD_S + 2 * LOOK_S;

/**
 * Traits of the sound that mixers have words for: sharp, bassy, blown at, pumping, roomy.
 */
export class Character implements Family<CharacterGroup> {
  private readonly sibilant = new LevelHistogram();
  private readonly blowing = { sum: 0, count: 0 };
  private readonly calm = { sum: 0, count: 0 };
  private windS = 0;
  private heardS = 0;
  private readonly pumping: Rise[] = [];
  private decayS: number | null = null;

  settle(chapter: Chapter): void {
    this.settleSibilance(chapter);
    this.settleQuiet(chapter);
    this.settleWind(chapter);
    this.decayS = chapter.decayS;
  }

  private settleSibilance({ tracks, speech }: Chapter): void {
    const { highBands } = tracks;
    if (highBands.bands.length <= SIBILANT_COLUMNS[0]) return;
    const powers = highBands.sums(SIBILANT_COLUMNS[0], Math.min(SIBILANT_COLUMNS[1], highBands.bands.length));
    const times = highBands.times();
    let word = 0;
    for (let frame = 0; frame < powers.length; frame++) {
      const time = times[frame] as number;
      while (word < speech.length && (speech[word]?.[1] ?? 0) < time) word++;
      if (time >= (speech[word]?.[0] ?? Number.POSITIVE_INFINITY)) this.sibilant.add(powers[frame] as number);
    }
  }

  private settleQuiet({ tracks, quiet, weighted, startS, endS, speech }: Chapter): void {
    const plain = tracks.moments.meanSquares();
    for (const [from, to] of quiet) {
      const first = Math.round((from - startS) / FRAME_S);
      const end = Math.min(plain.length, Math.round((to - startS) / FRAME_S));
      // Only a pause between two words shows how the gain comes up and is taken down again.
      if (speech.length === 0 || from <= startS || to >= endS - FRAME_S || to - from < SHORTEST_PUMPING_PAUSE_S) continue;
      const looks = [first + Math.round(AFTER_WORD_S / FRAME_S), end - Math.round((BEFORE_WORD_S + LOOK_S) / FRAME_S)] as const;
      const riseOf = (powers: Float64Array) => {
        const [early, late] = looks.map((at) => meanOf(powers, at, at + Math.round(LOOK_S / FRAME_S))) as [number, number];
        return early > NOTHING && late > NOTHING ? 10 * Math.log10(late / early) : null;
      };
      const [riseDb, chestDb] = [riseOf(weighted), riseOf(tracks.chest.view())];
      if (riseDb !== null && chestDb !== null) this.pumping.push({ riseDb, chestDb, weight: to - from });
    }
  }

  /** Sound under 250 Hz between words: while the wind blows, and otherwise. */
  private settleWind({ tracks, events, quiet, startS, endS }: Chapter): void {
    const powers = tracks.under250.view();
    const plain = tracks.moments.meanSquares();
    const times = frameTimesS(powers.length, startS);
    const gusts = joinSpans(
      events.filter(({ kind }) => kind === 'wind').map((event): Span => [event.startS, event.endS]),
      FRAME_S,
    );
    const wordless = insideSpans(times, quiet, 0);
    const windy = insideSpans(times, gusts, 0);
    for (let frame = 0; frame < powers.length; frame++) {
      // Digital silence says nothing of the place.
      if (!wordless[frame] || (plain[frame] ?? 0) < NOTHING) continue;
      const into = windy[frame] ? this.blowing : this.calm;
      into.sum += powers[frame] as number;
      into.count++;
    }
    this.windS += gusts.reduce((sum, [from, to]) => sum + to - from, 0);
    this.heardS += endS - startS;
  }

  finish(before: Finished, warn: Warn): CharacterGroup {
    const speech = before.spectrum?.speechDb ?? [];
    const pause = before.spectrum?.pauseDb ?? [];
    const voice = speech.map((level, band) => (level === null ? null : Math.max(0, 10 ** (level / 10) - (pause[band] == null ? 0 : 10 ** ((pause[band] as number) / 10)))));
    const body = bandSum(voice, 300, 3000);
    const hiss = bandSum(
      pause.map((level) => (level === null ? null : 10 ** (level / 10))),
      5000,
      9000,
    );
    const sibilant = this.sibilant.meanOfLoudest(LOUDEST_SHARE);
    const relative = (power: number, to: number) => (power > 0 && to > 0 ? powerDb(power / to) : null);
    const wind = this.blowing.count >= LEAST_WIND_FRAMES ? this.blowing : this.calm;
    const windDbfs = wind.count >= LEAST_WIND_FRAMES ? powerDb(wind.sum / wind.count) : null;
    const active = before.activity?.activeLevelDbfs ?? null;
    const pumping = pumpingOf(this.pumping);
    if (pumping === 'moves by itself') warn('the quiet between words changes by itself, as gusts or music do: nothing can be said of an automatic level');
    return {
      sibilanceDb: sibilant === null ? null : relative(sibilant - hiss, body),
      proximityDb: relative(bandSum(voice, 80, 200), bandSum(voice, 500, 2000)),
      windDb: windDbfs === null || active === null ? null : windDbfs - active,
      windShare: this.heardS > 0 ? this.windS / this.heardS : null,
      pumpingDb: typeof pumping === 'number' ? pumping : null,
      reverberationS: this.decayS,
    };
  }
}

/** How much the quiet of one pause came up, as the ear weighs it and where a voice has its fundamental. */
interface Rise {
  riseDb: number;
  chestDb: number;
  weight: number;
}

/** What is left of a word in its last frame is no wind. */
const LEAST_WIND_FRAMES = 20;

/** So many pauses must agree before an automatic level is blamed. */
const LEAST_PAUSES = 3;
/** An automatic level brings all pauses up alike; what differs more than this, against the rise, moves by itself. */
const MOST_SCATTER_DB = 2;
const MOST_SCATTER_SHARE = 0.5;
/** It brings lows and highs up alike as well. */
const MOST_COLOUR_DB = 4;

/**
 * What an automatic level does to the quiet: the median rise over the pauses, by their length. Gusts, music
 * and passing cars bring one pause up and another down, or the lows and not the highs: then there is no figure.
 */
function pumpingOf(rises: readonly Rise[]): number | 'moves by itself' | null {
  if (rises.length < LEAST_PAUSES) return null;
  const median = weightedMedian(rises, ({ riseDb }) => riseDb);
  const scatter = weightedMedian(rises, ({ riseDb }) => Math.abs(riseDb - median));
  const colour = weightedMedian(rises, ({ riseDb, chestDb }) => Math.abs(chestDb - riseDb));
  return scatter > Math.max(MOST_SCATTER_DB, MOST_SCATTER_SHARE * Math.abs(median)) || colour > MOST_COLOUR_DB ? 'moves by itself' : median;
}

function weightedMedian(rises: readonly Rise[], value: (rise: Rise) => number): number {
  const sorted = rises.map((rise) => ({ value: value(rise), weight: rise.weight })).sort((a, b) => a.value - b.value);
  const half = sorted.reduce((sum, each) => sum + each.weight, 0) / 2;
  let passed = 0;
  for (const each of sorted) {
    passed += each.weight;
    if (passed >= half) return each.value;
  }
  return 0;
}

/** Powers counted by level, with the sum of each step, so that the loudest share can be averaged later. */
class LevelHistogram {
  private readonly counts = new Float64Array(Math.round(-LOWEST_DB / STEP_DB) + 80);
  private readonly sums = new Float64Array(this.counts.length);
  private total = 0;

  add(power: number): void {
    const level = Math.max(LOWEST_DB, 10 * Math.log10(Math.max(power, 1e-20)));
    const bin = Math.min(this.counts.length - 1, Math.floor((level - LOWEST_DB) / STEP_DB));
    this.counts[bin] = (this.counts[bin] as number) + 1;
    this.sums[bin] = (this.sums[bin] as number) + power;
    this.total++;
  }

  /** Mean power of the loudest share of all values; the step on the border counts in part. */
  meanOfLoudest(share: number): number | null {
    let left = this.total * share;
    if (left === 0) return null;
    const wanted = left;
    let sum = 0;
    for (let bin = this.counts.length - 1; bin >= 0 && left > 0; bin--) {
      const count = this.counts[bin] as number;
      if (count === 0) continue;
      const taken = Math.min(left, count);
      sum += ((this.sums[bin] as number) * taken) / count;
      left -= taken;
    }
    return sum / wanted;
  }
}
