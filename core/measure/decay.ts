import type { Chapter } from './chapter.types.ts';
import { FINE_FRAME_S, NOTHING_DB } from './tracks/frames.ts';

const STEP_S = 0.01;
const FINE_PER_STEP = Math.round(STEP_S / FINE_FRAME_S);
/** How long a decay is followed after the end of a word. */
const FOLLOWED_S = 1.2;
/** In a live room the decay has begun this long before a word counts as over. */
const BEFORE_END_S = 0.4;
/** A decay is read from this far under its start down to this far over the noise, and must span enough. */
const FROM_DB = 8;
const OVER_NOISE_DB = 2;
const LEAST_SPAN_DB = 10;
const LEAST_POINTS = 6;
/** Going back along a decay the level may fall by this much without being another sound. */
const WAVERING_DB = 1.5;
/** A room dies away in a straight line; a voice that trails off, or stops beside a near microphone, does not. */
const MOST_BEND_DB = 1.2;
/** Of all word ends the steepest show the room; a voice that dies away slowly hides it. */
const STEEPEST_SHARE = 0.3;
const MOST_DECAYS = 4000;
const NOTHING = 10 ** (NOTHING_DB / 10);

/**
 * Reverberation time from how the sound dies away after words. Each word's end gives a slope, by least
 * squares on the levels of 10 ms (noise taken off by power) while they are clear of both the word and
 * the noise. A voice can stop slower than the room, never the room faster than itself, so the estimate
 * is the slope that only the steepest three in ten exceed.
 */
export class DecayFinder {
  private readonly timesS: number[] = [];

  settle({ speech, quiet, startS, tracks, endS }: Chapter): void {
    const fine = tracks.fine.view();
    const step = (index: number) => {
      let sum = 0;
      for (let at = index * FINE_PER_STEP; at < (index + 1) * FINE_PER_STEP; at++) sum += fine[at] ?? 0;
      return sum / FINE_PER_STEP;
    };
    for (const [, wordEndS] of speech) {
      const pause = quiet.find(([from]) => Math.abs(from - wordEndS) < 1e-6);
      if (!pause || pause[1] - pause[0] < 0.3 || this.timesS.length >= MOST_DECAYS) continue;
      const first = Math.round((wordEndS - startS - BEFORE_END_S) / STEP_S);
      const last = Math.round((Math.min(pause[1], wordEndS + FOLLOWED_S, endS) - startS) / STEP_S) - 2;
      const noiseFrom = Math.max(first + 20, Math.round((pause[1] - startS) / STEP_S) - 15);
      const levels: number[] = [];
      let noise = 0;
      for (let index = noiseFrom; index < noiseFrom + 12; index++) noise += step(index) / 12;
      // A file that falls into digital silence shows where it was cut, or gated, and no room.
      if (noise < NOTHING) continue;
      for (let index = Math.max(0, first); index < last; index++) levels.push(step(index));
      const time = decayTimeS(levels, noise);
      if (time !== null) this.timesS.push(time);
    }
  }

  /** Null when fewer than three words end in a readable decay. */
  reverberationS(): number | null {
    if (this.timesS.length < 3) return null;
    const sorted = [...this.timesS].sort((a, b) => a - b);
    return sorted[Math.floor(STEEPEST_SHARE * (sorted.length - 1))] ?? null;
  }
}

/** Time to fall by 60 dB, from powers of {@link STEP_S} around the end of a word; null where no clear decay is seen. */
export function decayTimeS(powers: readonly number[], noise: number): number | null {
  const clean = powers.map((power) => 10 * Math.log10(Math.max(power - noise, 1e-20)));
  const floor = 10 * Math.log10(Math.max(noise, 1e-20)) + OVER_NOISE_DB;
  let end = clean.findIndex((level, index) => index > 5 && level < floor);
  if (end < 0) end = clean.length;
  // The decay starts at the last peak before it goes down for good.
  let start = end - 1;
  for (let index = end - 1; index >= 0 && (clean[index] as number) > (clean[start] as number) - WAVERING_DB; index--) {
    if ((clean[index] as number) > (clean[start] as number)) start = index;
  }
  const top = clean[start] ?? 0;
  while (start < end && (clean[start] as number) > top - FROM_DB) start++;
  const points = clean.slice(start, end);
  if (points.length < LEAST_POINTS || (points[0] as number) - (points.at(-1) as number) < LEAST_SPAN_DB) return null;
  const middle = (points.length - 1) / 2;
  const mean = points.reduce((sum, level) => sum + level, 0) / points.length;
  let covariance = 0;
  let variance = 0;
  points.forEach((level, index) => {
    covariance += (index - middle) * (level - mean);
    variance += (index - middle) ** 2;
  });
  const slope = covariance / variance;
  const bend = Math.sqrt(points.reduce((sum, level, index) => sum + (level - mean - slope * (index - middle)) ** 2, 0) / points.length);
  return slope < 0 && bend <= MOST_BEND_DB ? (-60 * STEP_S) / slope : null;
}
