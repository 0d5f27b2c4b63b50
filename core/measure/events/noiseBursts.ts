import type { Heard } from '../chapter.types.ts';
import type { AudioEvent } from '../report.types.ts';
import { coarser, FINE_FRAME_S, meanOf } from '../tracks/frames.ts';

/** Bins of half a millisecond in a step. */
const BINS = 4;
const SHORTEST_STEPS = 3;
const LONGEST_S = 0.15;
/** It comes and goes within two steps, by this much. */
const EDGE_DB = 9;
/** Over the loudest just before and after it. */
const AROUND_S = 0.02;
const OVER_AROUND_DB = 6;
/** A short one may be the start of a t: it must be so much clearer for every step that it is shorter than this. */
const LONG_ENOUGH_STEPS = 7;
const CLEARER_DB = 2.5;
/** Noise of a receiver is even: two thirds of its steps lie this near to each other. */
const EVEN_DB = 1.6;
/** Noise of a receiver reaches the top of the spectrum: its third difference is so far over its own level; that of an s is not. */
const OVER_LEVEL_DB = 8;
/** Under this rate every hiss reaches the top. */
const LEAST_RATE_HZ = 32_000;
const NOTHING_DB = -110;

/**
 * Bursts of a receiver's noise: sound near the top of the spectrum that is there at once, is even, and is gone
 * at once. An s swells and fades, a t dies away, a click is over within a step.
 */
export function findNoiseBursts({ tracks, startS }: Heard): AudioEvent[] {
  if (tracks.sampleRateHz < LEAST_RATE_HZ) return [];
  const fine = tracks.weighted.fine();
  const stepS = (BINS * tracks.breaks.binSamples) / tracks.sampleRateHz;
  const levels = coarser(tracks.breaks.meanSquares(), BINS).map((power) => 10 * Math.log10(Math.max(power, 1e-15)));
  const longest = Math.round(LONGEST_S / stepS);
  const around = Math.round(AROUND_S / stepS);
  const found: AudioEvent[] = [];
  for (let from = 2; from < levels.length - 2; from++) {
    const level = levels[from + 1] as number;
    if (level < NOTHING_DB || level - (levels[from - 1] as number) < EDGE_DB || level - (levels[from - 2] as number) < EDGE_DB) continue;
    let to = from + 1;
    while (to < levels.length && to - from <= longest && (levels[to] as number) > level - EDGE_DB / 2) to++;
    if (to - from < SHORTEST_STEPS || to - from > longest || to + 1 >= levels.length) continue;
    const inside = levels.slice(from + 1, to - 1).sort();
    const middle = inside[inside.length >> 1] as number;
    const even = ((inside[Math.floor(0.83 * (inside.length - 1))] as number) - (inside[Math.floor(0.17 * (inside.length - 1))] as number)) / 2;
    const most = (first: number, end: number) => levels.subarray(Math.max(0, first), Math.max(0, end)).reduce((sofar, each) => Math.max(sofar, each), -150);
    const over = middle - Math.max(most(from - around, from - 1), most(to + 1, to + around));
    const own = meanOf(fine, Math.round((from * stepS) / FINE_FRAME_S) + 1, Math.round((to * stepS) / FINE_FRAME_S) - 1);
    if (middle - 10 * Math.log10(Math.max(own, 1e-15)) < OVER_LEVEL_DB) {
      from = to;
      continue;
    }
    if (middle - (levels[to + 1] as number) >= EDGE_DB && even <= EVEN_DB && over >= OVER_AROUND_DB + CLEARER_DB * Math.max(0, LONG_ENOUGH_STEPS - (to - from))) {
      found.push({ kind: 'dropout', startS: startS + from * stepS, endS: startS + to * stepS, severityDb: over });
    }
    from = to;
  }
  return found;
}
