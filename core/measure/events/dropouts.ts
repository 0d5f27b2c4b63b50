import { filled } from '../../audio/filled.ts';
import type { Heard } from '../chapter.types.ts';
import type { AudioEvent, Span } from '../report.types.ts';
import { sharedS } from '../spans.ts';
import { FINE_FRAME_S, meanOf, quantile, smoothedDb } from '../tracks/frames.ts';
import { flatSpans } from './flatSpans.ts';

/** A break is this much under the room tone, for this long at least. */
const UNDER_ROOM_DB = 9;
/** A steady noise wavers by this much, seen through 10 ms. */
const STEADY_DB = 0.8;
const WAVERING_SHARE = 4;
/** Low sound shows its waves in fine frames: how far a tenth of them lie under the 10 ms around; hiss alone has less than this. */
const STEADY_RIPPLE_DB = 3;
const RIPPLE_SHARE = 0.1;
/** Levels that waver by themselves do so up and down nearly alike. */
const SKEW = 1.5;
/** Room tone so much lower after words has been turned down there. */
const PUMPED_DB = 3;
const SHORTEST_HOLE_S = 0.004;
/** It begins at once: by this much within some ten milliseconds. What a room's tail leaves when it has rung out comes slowly. */
const SUDDEN_DB = 8;
const [SUDDEN_BEFORE_FRAMES, SUDDEN_WITHIN_FRAMES] = [6, 4];
/** Or: a voice falls by this much within two fine frames, faster than a room or a mouth lets it. */
const CUT_DB = 22;
const RETURN_DB = 16;
const LONGEST_CUT_S = 0.5;
const SHORTEST_CUT_S = 0.01;
/** The floor of a cut is as flat as a receiver's noise; between two pulses of a low voice it is a valley. */
const FLAT_DB = 7;
const RINGING_FRAMES = 5;
const RINGING_DB = 2;
/** And it lies under the room tone: where a mouth closes in a dead room, the room tone is still there. */
const CUT_UNDER_ROOM_DB = 4;
/** Or: down and up by this much, to a bottom under the room tone, within this many fine frames. */
const NICK_DB = 25;
const NICK_FALL_FRAMES = 6;
const NICK_UNDER_ROOM_DB = 6;
const SILENT_DB = -105;
/** A flat top explains a hole that it fills to this share. */
const FLAT_SHARE = 0.4;
const AFTER_WORD_S = [0.03, 0.13] as const;

/**
 * Dropouts. Room tone never stops, so sound well under it is a break; and a voice in a room fades, it
 * does not stop dead, take the room tone with it and come back as suddenly.
 */
export function findDropouts({ tracks, startS, quiet, speech }: Heard): AudioEvent[] {
  const fine = tracks.weighted.fine();
  const levels = filled(fine.length, (index) => 10 * Math.log10(Math.max(fine[index] as number, 1e-15)));
  const tone = quiet.length > 0 ? quiet : speech;
  const levelsOfTone = roomLevels(fine, tone, startS);
  const middle = quantile(levelsOfTone, 0.5);
  // Where an automatic level works, room tone is lowest just after words, and within them.
  const afterWords = quiet.filter(([from]) => from > startS).map(([from, to]): Span => [from + AFTER_WORD_S[0], Math.min(to, from + AFTER_WORD_S[1])]);
  const afterWord = afterWords.length > 0 ? quantile(roomLevels(fine, afterWords, startS), 0.4) : 0;
  // Breaks widen the lower half of the room tone's levels, cloth and the tails of words the upper one, which alone is no wavering.
  const upper = quantile(levelsOfTone, 0.75) - middle;
  const lower = middle - quantile(levelsOfTone, 0.25);
  const spread = afterWord < middle - PUMPED_DB ? upper : Math.min(upper, SKEW * lower);
  const room = Math.min(middle, afterWord) - 2 * spread;
  // Wind and traffic fall by themselves; the more the room tone wavers, the deeper a break must be.
  const wavering = Math.max(0, spread - STEADY_DB, rippleOf(fine, tone, startS) - STEADY_RIPPLE_DB);
  const holes = holesUnder(levels, room - UNDER_ROOM_DB - WAVERING_SHARE * wavering);
  const cuts = cutsIn(levels, fine, room);
  const found = widened(levels, unique([...(room > SILENT_DB ? holes : []), ...cuts, ...nicksIn(levels, room - NICK_UNDER_ROOM_DB - WAVERING_SHARE * wavering)]));
  // While a wave is held flat at full scale nothing moves, which is not the radio's doing.
  const flat = flatSpans(tracks, 0).map(([from, to]): Span => [(from - startS) / FINE_FRAME_S, (to - startS) / FINE_FRAME_S]);
  return found
    .filter(([from, to]) => sharedS(flat, from, to) < FLAT_SHARE * (to - from))
    .map(([from, to]) => ({
      kind: 'dropout',
      startS: startS + from * FINE_FRAME_S,
      endS: startS + to * FINE_FRAME_S,
      severityDb: depthDb(levels, from, to, room),
    }));
}

/** Levels of the quiet moments, 10 ms each, the lowest first. */
function roomLevels(fine: Float64Array, spans: readonly Span[], startS: number): Float64Array {
  const kept: number[] = [];
  for (const [from, to] of spans) {
    for (let index = Math.round((from - startS) / FINE_FRAME_S); index + 5 <= (to - startS) / FINE_FRAME_S; index += 5) {
      kept.push(10 * Math.log10(Math.max(meanOf(fine, index, index + 5), 1e-15)));
    }
  }
  return Float64Array.from(kept).sort();
}

/** How far a tenth of the fine frames lie under the 10 ms that they belong to. */
function rippleOf(fine: Float64Array, spans: readonly Span[], startS: number): number {
  const under: number[] = [];
  for (const [from, to] of spans) {
    for (let index = Math.round((from - startS) / FINE_FRAME_S); index + 5 <= (to - startS) / FINE_FRAME_S; index += 5) {
      const mean = meanOf(fine, index, index + 5);
      for (let frame = index; frame < index + 5; frame++) under.push(10 * Math.log10(Math.max(mean, 1e-15) / Math.max(fine[frame] as number, 1e-15)));
    }
  }
  return quantile(Float64Array.from(under).sort(), 1 - RIPPLE_SHARE);
}

function holesUnder(levels: Float64Array, threshold: number): Span[] {
  const holes: Span[] = [];
  const shortest = Math.round(SHORTEST_HOLE_S / FINE_FRAME_S);
  for (let from = 0; from < levels.length; from++) {
    if ((levels[from] as number) >= threshold) continue;
    let to = from;
    while (to < levels.length && (levels[to] as number) < threshold) to++;
    // A file that starts or ends in silence has not been broken off by radio.
    if (to - from >= shortest && from > 0 && to < levels.length && isSudden(levels, from, to)) holes.push([from, to]);
    from = to;
  }
  return holes;
}

function isSudden(levels: Float64Array, from: number, to: number): boolean {
  const before = levels.subarray(Math.max(0, from - SUDDEN_BEFORE_FRAMES), from).reduce((most, level) => Math.max(most, level), -150);
  const inside = levels.subarray(from, Math.min(to, from + SUDDEN_WITHIN_FRAMES)).reduce((least, level) => Math.min(least, level), 150);
  return before - inside >= SUDDEN_DB;
}

/**
 * Breaks of some ten milliseconds, over before the weighting has rung out: down by much within a few
 * fine frames to under the room tone, and back at once.
 */
function nicksIn(levels: Float64Array, threshold: number): Span[] {
  const nicks: Span[] = [];
  for (let at = NICK_FALL_FRAMES; at < levels.length - 2; at++) {
    const bottom = levels[at] as number;
    if (bottom >= threshold || (levels[at + 1] as number) < bottom) continue;
    const after = Math.max(levels[at + 1] as number, levels[at + 2] as number);
    const before = levels.subarray(at - NICK_FALL_FRAMES, at).reduce((most, level) => Math.max(most, level), -150);
    if (after - bottom < NICK_DB || before - bottom < NICK_DB) continue;
    let from = at;
    while (from > 0 && (levels[from - 1] as number) < before - UNDER_ROOM_DB) from--;
    nicks.push([from, at + 1]);
  }
  return nicks;
}

/** Stretches that begin with a sudden fall and end with a sudden rise. */
function cutsIn(levels: Float64Array, fine: Float64Array, room: number): Span[] {
  const smooth = smoothedDb(fine, 3);
  const cuts: Span[] = [];
  const longest = Math.round(LONGEST_CUT_S / FINE_FRAME_S);
  const shortest = Math.round(SHORTEST_CUT_S / FINE_FRAME_S);
  for (let at = 4; at < levels.length - shortest; at++) {
    const before = Math.min(smooth[at - 2] as number, levels[at - 1] as number);
    if (before - (levels[at + 1] as number) < CUT_DB || before - (levels[at] as number) < 3) continue;
    const ceiling = before - CUT_DB;
    let to = at + 1;
    while (to < levels.length && to - at <= longest && (levels[to] as number) < ceiling) to++;
    if (to - at <= shortest || to - at > longest || to + 2 >= levels.length) continue;
    const inside = withoutRinging(levels.subarray(at + 1, to - 1));
    const bottom = Math.min(...inside);
    const flat = Math.max(...inside) - bottom <= FLAT_DB && meanOf(inside, 0, inside.length) < room - CUT_UNDER_ROOM_DB;
    if (flat && (smooth[to + 1] as number) - (inside.at(-1) ?? 0) >= RETURN_DB) cuts.push([at, to]);
    at = to;
  }
  return cuts;
}

/** The lowest poles of the weighting ring out at the start of a mute, by some decibels a frame. */
function withoutRinging(levels: Float64Array): Float64Array {
  let from = 0;
  while (from < RINGING_FRAMES && from + 2 < levels.length && (levels[from + 1] as number) < (levels[from] as number) - RINGING_DB) from++;
  return levels.subarray(from);
}

/** Spans with the fall before them: the weighting's lowest poles ring on for some milliseconds after a mute. */
function widened(levels: Float64Array, spans: readonly Span[]): Span[] {
  return spans.map(([from, to]) => {
    let start = from;
    while (start > 1 && from - start < 4 && (levels[start - 1] as number) < (levels[start - 2] as number) - 5) start--;
    return [start, to];
  });
}

function unique(spans: readonly Span[]): Span[] {
  const sorted = [...spans].sort((a, b) => a[0] - b[0]);
  const out: Span[] = [];
  for (const span of sorted) {
    const last = out.at(-1);
    if (last && span[0] <= last[1] + 2) last[1] = Math.max(last[1], span[1]);
    else out.push([...span]);
  }
  return out;
}

/** How far the sound fell, from the 20 ms before it, or from the room tone if that was louder. */
function depthDb(levels: Float64Array, from: number, to: number, room: number): number {
  const mean = (start: number, end: number) => {
    let sum = 0;
    for (let index = Math.max(0, start); index < end; index++) sum += 10 ** ((levels[index] as number) / 10);
    return 10 * Math.log10(Math.max(sum / Math.max(1, end - Math.max(0, start)), 1e-15));
  };
  // The quieter half of it: its edges fall and rise.
  const sorted = Float64Array.from(levels.subarray(from, to)).sort();
  const inside = quantile(sorted, 0.25);
  return Math.min(90, Math.max(mean(from - 10, from), room) - inside);
}
