import { FRAME_S } from './frames.ts';
import type { Span } from './report.types.ts';

const SMOOTH_FRAMES = 3;
const LEAST_CONTRAST_DB = 8;
const SHORTEST_PAUSE_S = 0.15;
const SHORTEST_WORD_S = 0.06;
const HYSTERESIS_DB = 2;

/** Words and pauses of a channel. Without contrast there are no words and everything is a pause. */
export interface Words {
  speech: Span[];
  pause: Span[];
  contrastDb: number;
}

/**
 * Tells words from pauses by the A-weighted level of 10 ms frames, smoothed over 30 ms; the weighting
 * keeps wind and rumble out. The threshold lies above the quiet twentieth of the frames by two fifths of
 * the span between quiet and loud, at least 4 and at most 15 dB. Gaps under 150 ms belong to the words.
 * @param powers A-weighted mean squares of 10 ms frames
 */
export function findWords(powers: Float64Array): Words {
  const levels = smoothedLevels(powers);
  const sorted = Float64Array.from(levels).sort();
  const at = (fraction: number) => sorted[Math.min(sorted.length - 1, Math.floor(fraction * sorted.length))] ?? -150;
  const quiet = at(0.05);
  const contrastDb = at(0.95) - quiet;
  const endS = powers.length * FRAME_S;
  if (levels.length === 0) return { speech: [], pause: [], contrastDb: 0 };
  if (contrastDb < LEAST_CONTRAST_DB) return { speech: [], pause: [[0, endS]], contrastDb };
  const on = quiet + Math.min(15, Math.max(4, 0.4 * contrastDb));
  const words = joined(above(levels, on, on - HYSTERESIS_DB)).filter(([start, end]) => end - start >= SHORTEST_WORD_S - 1e-9);
  const pause: Span[] = [];
  let last = 0;
  for (const [start, end] of [...words, [endS, endS] as Span]) {
    if (start - last >= SHORTEST_PAUSE_S - 1e-9) pause.push([last, start]);
    last = end;
  }
  return { speech: words, pause, contrastDb };
}

function smoothedLevels(powers: Float64Array): Float64Array {
  const levels = new Float64Array(powers.length);
  const reach = (SMOOTH_FRAMES - 1) / 2;
  for (let index = 0; index < powers.length; index++) {
    let sum = 0;
    let count = 0;
    for (let near = Math.max(0, index - reach); near <= Math.min(powers.length - 1, index + reach); near++) {
      sum += powers[near] as number;
      count++;
    }
    levels[index] = 10 * Math.log10(Math.max(sum / count, 1e-15));
  }
  return levels;
}

function above(levels: Float64Array, on: number, off: number): Span[] {
  const spans: Span[] = [];
  let start = -1;
  for (let index = 0; index < levels.length; index++) {
    const level = levels[index] as number;
    if (start < 0 && level >= on) start = index;
    else if (start >= 0 && level < off) {
      spans.push([start * FRAME_S, index * FRAME_S]);
      start = -1;
    }
  }
  if (start >= 0) spans.push([start * FRAME_S, levels.length * FRAME_S]);
  return spans;
}

function joined(spans: readonly Span[]): Span[] {
  const out: Span[] = [];
  for (const span of spans) {
    const last = out.at(-1);
    if (last && span[0] - last[1] < SHORTEST_PAUSE_S - 1e-9) last[1] = span[1];
    else out.push([span[0], span[1]]);
  }
  return out;
}
