import type { Span } from './report.types.ts';
import { sharedS } from './spans.ts';
import { FRAME_S, NOTHING_DB, quantile, smoothedDb } from './tracks/frames.ts';

/** The level is smoothed over this for the lie of the land, and over that for where it is. */
const VALLEY_FRAMES = 9;
const LEVEL_FRAMES = 3;
/** A valley is the lowest within this, and what follows rises by so much: the next word. */
const VALLEY_REACH_FRAMES = 8;
const RISE_FRAMES = 16;
const RISE_DB = 6;
/** The quietest fiftieth is noise; a fall is followed to this far over it. */
const NOISE_SHARE = 0.02;
const OVER_NOISE_DB = 4;
/** The noise is taken off by power, but never nearly all of a level. */
const LEAST_LEFT = 0.05;
/** A fall is a straight line in decibels this long, this deep and this straight (root mean square off the line). */
const SHORTEST_FRAMES = 10;
const LONGEST_FRAMES = 90;
const LEAST_SPAN_DB = 10;
const MOST_BEND_DB = 2.5;
/** Once it was straight for so long, the first bend is where the word was. */
const BENT_AFTER_FRAMES = 16;
/** Rooms ring between these. */
const SHORTEST_S = 0.1;
const LONGEST_S = 8;
/** Falls that agree within some tenths; where most of them lie is the room. */
const WIDTH = 0.2;
const GRID = 300;
/** All falls together must be so deep. */
const ENOUGH_DB = 30;
const MOST_FALLS = 4000;
const LATER_SHARE = 0.6;
const OVER_ROOM_DB = 1.5;
const WORD_DB = 3.2;
/** Falls this near to the decay, as a logarithm, are the room's. */
const AGREES = 0.3;
/** What a word says of the direct sound is too much when its end was soft: not the middle of the falls counts. */
const LOWER = 0.3;
/** A room remembers what was said for so many times its decay. */
const REMEMBERED = 0.7;
const LEAST_ROOM = 0.02;
const MOST_ROOM = 50;
const HALVINGS = 16;
/** Voices themselves die away in this time; from the other on a decay is the room's alone. */
const AS_A_VOICE_S = 0.35;
const FAR_FROM_VOICE_S = 1.1;
/** Direct sound against the room, in power, where most microphones stand. */
const USUAL_DIRECT = 1.5;

interface Fall {
  /** Time to fall by 60 dB. */
  timeS: number;
  frames: number;
  spanDb: number;
  /** Power of the room against that of the direct sound that rang it up. */
  roomToDirect: number;
}

/**
 * How long a room rings, from how the sound dies away before each rise. A near microphone hears the word stop
 * and then the room, so only the last straight part of each fall is read: from the valley back until the
 * line bends. Voices die away slower than dry rooms and some valleys hold a breath, so the answer is not the
 * mean of the falls but where most of them lie (a kernel density over their logarithms, by their depth).
 * The idea of free decays found blindly and judged by their distribution is that of Ratnam et al., Blind
 * estimation of reverberation time (2003), and Wen et al., Blind estimation from spectral decay distributions (2008).
 */
export class DecayFinder {
  private readonly falls: Fall[] = [];

  /**
   * @param weighted A-weighted mean squares of 10 ms of the next stretch
   * @param events what is no performance in it, in seconds from its start: a gust that dies down is no room
   */
  settle(weighted: Float64Array, events: readonly Span[] = []): void {
    const wide = smoothedDb(weighted, VALLEY_FRAMES);
    const narrow = smoothedDb(weighted, LEVEL_FRAMES);
    const heard = wide.filter((level) => level > NOTHING_DB).sort();
    if (heard.length < RISE_FRAMES) return;
    const noise = 10 ** (quantile(heard, NOISE_SHARE) / 10);
    const floorDb = 10 * Math.log10(noise) + OVER_NOISE_DB;
    const clean = weighted.map((power) => 10 * Math.log10(Math.max(power - noise, LEAST_LEFT * power, 1e-15)));
    for (const valley of valleysOf(wide, narrow)) {
      let end = valley - LEVEL_FRAMES;
      while (end > 0 && (narrow[end] as number) < floorDb) end--;
      const fall = end > 2 * SHORTEST_FRAMES ? fallBefore(clean, end) : null;
      if (fall && sharedS(events, (end - fall.frames) * FRAME_S, end * FRAME_S) > 0) continue;
      if (fall && this.falls.length < MOST_FALLS) this.falls.push(fall);
    }
  }

  /** Null where no fall, or too little of one, was seen clear of the noise. */
  reverberationS(): number | null {
    if (this.falls.reduce((sum, { spanDb }) => sum + spanDb, 0) < ENOUGH_DB) return null;
    const [from, to] = [Math.log(SHORTEST_S), Math.log(LONGEST_S)];
    let best = { at: 0, density: -1 };
    for (let step = 0; step <= GRID; step++) {
      const at = from + ((to - from) * step) / GRID;
      const density = this.falls.reduce((sum, { timeS, spanDb }) => sum + spanDb * Math.exp(-0.5 * ((at - Math.log(timeS)) / WIDTH) ** 2), 0);
      if (density > best.density) best = { at, density };
    }
    return Math.exp(best.at);
  }

  /**
   * Power of the direct sound against that of the room, from those falls that agree with the decay; null without
   * one. In a fast decay the two are not told apart from outside, and most microphones stand where the direct
   * sound is the stronger: there it is taken to be so.
   */
  directToRoom(): number | null {
    const decayS = this.reverberationS();
    if (decayS === null) return null;
    const agreeing = this.falls.filter(({ timeS }) => Math.abs(Math.log(timeS / decayS)) < AGREES);
    if (agreeing.length === 0) return null;
    const ratios = Float64Array.from(agreeing, ({ roomToDirect }) => 1 / roomToDirect).sort();
    const usual = USUAL_DIRECT * Math.min(1, Math.max(0, (FAR_FROM_VOICE_S - decayS) / (FAR_FROM_VOICE_S - AS_A_VOICE_S)));
    return Math.max(usual, quantile(ratios, LOWER));
  }
}

/** Lowest points that a rise follows, and the end. */
function valleysOf(wide: Float64Array, narrow: Float64Array): number[] {
  const valleys: number[] = [];
  for (let frame = 5; frame < wide.length - RISE_FRAMES; frame++) {
    const level = wide[frame] as number;
    let lowest = true;
    for (let other = Math.max(0, frame - VALLEY_REACH_FRAMES); other <= frame + VALLEY_REACH_FRAMES; other++) if ((wide[other] as number) < level) lowest = false;
    if (!lowest) continue;
    let most = level;
    for (let other = frame; other < frame + RISE_FRAMES; other++) most = Math.max(most, narrow[other] as number);
    if (most - level < RISE_DB) continue;
    valleys.push(frame);
    frame += VALLEY_REACH_FRAMES;
  }
  valleys.push(wide.length - LEVEL_FRAMES);
  return valleys;
}

/** The straight part of a fall that ends at a frame, as far back as it is straight. */
function fallBefore(clean: Float64Array, end: number): Fall | null {
  let best: { length: number; slope: number } | null = null;
  const lines: { slope: number; mean: number }[] = [];
  let sum = 0;
  let sumOfSquares = 0;
  let sumOfProducts = 0;
  let above = 0;
  // Time runs back from the end, so a fall has a rising line.
  for (let length = 0; length < LONGEST_FRAMES && end - length >= 0; length++) {
    const level = clean[end - length] as number;
    sum += level;
    sumOfSquares += level * level;
    sumOfProducts += length * level;
    if (length < SHORTEST_FRAMES) continue;
    const count = length + 1;
    const middle = length / 2;
    const variance = (count * (count * count - 1)) / 12;
    const slope = (sumOfProducts - middle * sum) / variance;
    const bend = Math.sqrt(Math.max(0, (sumOfSquares - (sum * sum) / count - slope * slope * variance) / count));
    const line = lines[length - 1];
    lines[length] = { slope, mean: sum / count };
    // The line so far, carried on: what lies well over it is the word.
    const off = line ? level - (line.mean + line.slope * (length - (length - 1) / 2)) : 0;
    above = 0.6 * above + 0.4 * off;
    if (above > WORD_DB && length > BENT_AFTER_FRAMES) break;
    if (bend > MOST_BEND_DB && length > BENT_AFTER_FRAMES) break;
    if (slope > 0 && bend <= MOST_BEND_DB && slope * length >= LEAST_SPAN_DB) best = { length, slope };
  }
  if (!best) return null;
  const timeS = (60 * FRAME_S) / best.slope;
  if (timeS < SHORTEST_S || timeS > LONGEST_S) return null;
  // The line of its later part is the room alone; the word ended where the level last stood over that line.
  const later = Math.max(SHORTEST_FRAMES, Math.round(LATER_SHARE * best.length));
  const { slope, mean } = lines[later] as { slope: number; mean: number };
  const roomDb = (frame: number) => mean + slope * (end - frame - later / 2);
  let wordEnd = end - best.length;
  for (let frame = wordEnd; frame < end - later / 2; frame++) {
    const around = ((clean[frame - 1] as number) + (clean[frame] as number) + (clean[frame + 1] as number)) / 3;
    if (around - roomDb(frame) > OVER_ROOM_DB) wordEnd = frame + 1;
  }
  return { timeS, frames: best.length, spanDb: best.slope * best.length, roomToDirect: roomToDirect(clean, wordEnd, timeS, roomDb(wordEnd)) };
}

/**
 * How strong a room is that holds this much sound at a moment, after all that was said before: what it holds dies
 * away by its decay and is fed by the direct sound, which is the level less what the room holds. The answer is
 * searched for between {@link LEAST_ROOM} and {@link MOST_ROOM}.
 */
function roomToDirect(levels: Float64Array, at: number, decayS: number, heldDb: number): number {
  const kept = 10 ** ((-6 * FRAME_S) / decayS);
  const from = Math.max(0, at - Math.ceil((REMEMBERED * decayS) / FRAME_S));
  const held = 10 ** (heldDb / 10);
  let [low, high] = [Math.log(LEAST_ROOM), Math.log(MOST_ROOM)];
  for (let turn = 0; turn < HALVINGS; turn++) {
    const room = Math.exp((low + high) / 2);
    let holds = (10 ** ((levels[from] as number) / 10) * room) / (1 + room);
    for (let frame = from; frame < at; frame++) {
      const direct = Math.max(0, 10 ** ((levels[frame] as number) / 10) - holds);
      holds = kept * holds + (1 - kept) * room * direct;
    }
    if (holds < held) low = (low + high) / 2;
    else high = (low + high) / 2;
  }
  return Math.exp((low + high) / 2);
}
