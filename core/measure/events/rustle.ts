import type { Chapter } from '../chapter.types.ts';
import type { AudioEvent, Span } from '../report.types.ts';
import { insideSpans, joinSpans, sharedS } from '../spans.ts';
import type { BandTrack } from '../tracks/bandTrack.ts';
import { NOTHING_DB, quantile, usualLevel } from '../tracks/frames.ts';

/** Columns of the high track: the voice (250-1600 Hz), 2.5-5 kHz and 5-12.5 kHz. */
const VOICE = [0, 6] as const;
const MIDDLE = [7, 11] as const;
const HIGH = [11, 15] as const;
const OVER_QUIET_DB = 9;
const OVER_BALANCE_DB = 6;
const OVER_VOWEL_DB = 12;
/** The room rings on after a word. */
const NEAR_WORD_S = 0.12;
const EPISODE_GAP_S = 0.25;
const LEAST_ACTIVE_S = 0.08;
const LEAST_UNREST_DB = 3.6;
const CRACKLE_GAP_S = 0.05;
const LONGEST_CONSONANT_S = 0.34;

const dbOf = (powers: Float64Array) => powers.map((power) => 10 * Math.log10(Math.max(power, 1e-15)));

/**
 * Rustle: bursts of broadband high sound. Away from words, high sound over its usual quiet; within
 * them, more high sound beside a vowel than vowels have in this take.
 */
export function findRustle({ tracks, speech, quiet, startS, endS }: Chapter, bursts: readonly Span[]): AudioEvent[] {
  const bands = tracks.highBands;
  if (bands.bands.length < HIGH[1]) return [];
  const times = bands.times();
  const high = dbOf(bands.sums(...HIGH));
  const middle = dbOf(bands.sums(...MIDDLE));
  const voice = dbOf(bands.sums(...VOICE));
  const away = insideSpans(times, speech, NEAR_WORD_S).map((near) => 1 - near);
  const inWords = insideSpans(times, speech, 0);
  const usual = medianWhere(high, away);
  const usualMiddle = medianWhere(middle, away);
  const vowels = vowelFrames(voice, inWords);
  const balance = high.map((level, frame) => level - (voice[frame] as number));
  const usualBalance = medianWhere(balance, vowels);
  // Room tone that comes up as a whole has been turned up.
  const quietBalance = medianWhere(balance, away);
  const strongVoice = quantile(Float64Array.from(voice.filter((_, frame) => inWords[frame])).sort(), 0.85);
  const active = times.map((time, frame) => {
    if (time < startS || time > endS || (high[frame] as number) < NOTHING_DB + 20) return 0;
    if (away[frame])
      return (high[frame] as number) > usual + OVER_QUIET_DB &&
        (balance[frame] as number) > quietBalance + OVER_BALANCE_DB &&
        (middle[frame] as number) > usualMiddle + OVER_QUIET_DB / 2
        ? 1
        : 0;
    // No consonant lasts as long as cloth does; runs that are short are sorted out below.
    if (!vowels[frame] && (voice[frame] as number) < strongVoice - 12 && (high[frame] as number) > usual + OVER_QUIET_DB) return 2;
    return vowels[frame] && (balance[frame] as number) > usualBalance + OVER_VOWEL_DB ? 1 : 0;
  });
  const { hopS } = bands;
  const spans: Span[] = [];
  const unvoiced: Span[] = [];
  active.forEach((on, frame) => {
    if (on) (on === 2 ? unvoiced : spans).push([(times[frame] as number) - hopS / 2, (times[frame] as number) + hopS / 2]);
  });
  spans.push(...joinSpans(unvoiced, CRACKLE_GAP_S).filter(([from, to]) => to - from >= LONGEST_CONSONANT_S));
  const peakVoice = quantile(Float64Array.from(high).sort(), 0.9);
  return joinSpans(
    [...spans, ...bursts].sort((a, b) => a[0] - b[0]),
    EPISODE_GAP_S,
  )
    .filter(([from, to]) => sharedS(spans, from, to) >= LEAST_ACTIVE_S || sharedS(bursts, from, to) > 0)
    .filter(([from, to]) => sharedS(quiet, from, to) > 0.02 || sharedS(spans, from, to) > 0.12)
    .filter(([from, to]) => unrest(high, times, from, to) >= LEAST_UNREST_DB)
    .map(([from, to]) => ({ kind: 'rustle', startS: from, endS: to, severityDb: loudestIn(bands, high, from, to) - peakVoice }));
}

/** Usual change of a level from frame to frame: cloth crackles; consonants, room tone that was turned up and the tail of a room do not. */
function unrest(levels: Float64Array, times: Float64Array, fromS: number, toS: number): number {
  const changes: number[] = [];
  for (let frame = 1; frame < times.length; frame++) {
    if ((times[frame] as number) < fromS || (times[frame] as number) > toS) continue;
    changes.push(Math.abs((levels[frame] as number) - (levels[frame - 1] as number)));
  }
  return changes.length > 0 ? quantile(Float64Array.from(changes).sort(), 0.5) : 0;
}

/** Frames in which the voice is nearly as strong as it gets: vowels, which have little high sound. */
function vowelFrames(voice: Float64Array, inWords: Float64Array): Float64Array {
  const levels = Float64Array.from(voice.filter((_, frame) => inWords[frame])).sort();
  const strong = quantile(levels, 0.85) - 10;
  return voice.map((level, frame) => (inWords[frame] && level > strong ? 1 : 0));
}

function medianWhere(levels: Float64Array, where: Float64Array): number {
  return usualLevel(
    levels.filter((_, frame) => where[frame]),
    0.5,
  );
}

function loudestIn(bands: BandTrack, high: Float64Array, fromS: number, toS: number): number {
  const times = bands.times();
  let most = -150;
  times.forEach((time, frame) => {
    if (time >= fromS && time <= toS) most = Math.max(most, high[frame] as number);
  });
  return most;
}
