import { powerDb } from '../audio/decibel.ts';
import type { Chapter } from './chapter.types.ts';
import type { ChannelContext, Family, Finished } from './family.ts';
import { quasiPeak468 } from './quasiPeak468.ts';
import type { NoiseGroup, Span } from './report.types.ts';
import { FRAME_S } from './tracks/frames.ts';

/** Kept off both ends of a pause, so that the beginning of a word does not count as noise. */
const GUARD_S = 0.03;
/** Kept off its end while enough is left: breath and lips come before a word is told. */
const BREATH_S = 0.12;
/** Kept off its start while enough is left: the room rings on after a word. */
const RINGING_S = 0.3;
const LEFT_S = 0.15;
/** With this much of long pauses the short ones, in which the room still rings, are left out. */
const ENOUGH_FRAMES = 50;
/** A quasi-peak reading needs a second or two; more of the same noise does not change it. */
const QUASI_PEAK_S = 8;

/**
 * Level of the pauses. Practical floor: what the floor would be once the voice has been brought to the
 * target loudness. Signal-to-noise ratio: active speech level less the floor.
 */
export class Noise implements Family<NoiseGroup> {
  /** Pauses long enough for the room to have rung out, and all others. */
  private readonly settled = { plain: 0, weighted: 0, frames: 0 };
  private readonly short = { plain: 0, weighted: 0, frames: 0 };

  constructor(private readonly context: ChannelContext) {}

  settle({ tracks, weighted, pause, startS, endS }: Chapter): void {
    const plain = tracks.moments.meanSquares();
    for (const span of pause) {
      const [first, end] = guarded(span, startS, endS).map((time, side) => Math.round((time - startS) / FRAME_S + (side === 0 ? 0.4 : -0.4))) as [number, number];
      const into = span[0] <= startS || span[1] - span[0] >= RINGING_S + GUARD_S + LEFT_S ? this.settled : this.short;
      for (let index = first; index < Math.min(end, weighted.length); index++) {
        into.plain += plain[index] as number;
        into.weighted += weighted[index] as number;
        into.frames++;
      }
    }
  }

  finish(before: Finished): NoiseGroup {
    const { lengthS, options, sampleRateHz } = this.context;
    const pauses = before.activity?.pause ?? [];
    const { settled, short } = this;
    const parts = settled.frames >= ENOUGH_FRAMES ? [settled] : [settled, short];
    const frames = parts.reduce((sum, part) => sum + part.frames, 0);
    const floorDbfs = powerDb(parts.reduce((sum, part) => sum + part.plain, 0) / frames);
    const floorDbfsA = powerDb(parts.reduce((sum, part) => sum + part.weighted, 0) / frames);
    const hasWords = (before.activity?.speech.length ?? 0) > 0;
    const loudness = hasWords ? (before.loudness?.integratedLufs ?? null) : null;
    const practical = (floor: number | null) => (floor === null || loudness === null ? null : floor + options.targetLufs - loudness);
    const active = before.activity?.activeLevelDbfs ?? null;
    const heard = longestFirst(pauses, lengthS).map(([startS, endS]) => this.context.look(startS, endS - startS));
    return {
      floorDbfs,
      floorDbfsA,
      floorDbfs468: floorDbfs === null ? null : quasiPeak468(heard, sampleRateHz),
      practicalFloorDbfs: practical(floorDbfs),
      practicalFloorDbfsA: practical(floorDbfsA),
      snrDb: active === null || floorDbfs === null ? null : active - floorDbfs,
    };
  }
}

/** A pause without what touches words; where it touches the start or the end of the file nothing is taken off. */
function guarded([startS, endS]: Span, firstS: number, lastS: number): Span {
  const spare = endS - startS - LEFT_S;
  const breath = endS < lastS - 1e-6 ? Math.min(BREATH_S, Math.max(GUARD_S, spare - RINGING_S)) : 0;
  const ringing = startS > firstS ? Math.min(RINGING_S, Math.max(GUARD_S, spare - breath)) : 0;
  return [startS + ringing, endS - breath];
}

/** The longest pauses, up to {@link QUASI_PEAK_S} of them, in order of time. */
function longestFirst(pauses: readonly Span[], lengthS: number): Span[] {
  const sorted = pauses.map((span) => guarded(span, 0, lengthS)).sort((a, b) => b[1] - b[0] - (a[1] - a[0]));
  const out: Span[] = [];
  let left = QUASI_PEAK_S;
  for (const [startS, endS] of sorted) {
    if (left <= 0) break;
    const taken = Math.min(left, endS - startS);
    if (taken > 0) out.push([startS, startS + taken]);
    left -= taken;
  }
  return out.sort((a, b) => a[0] - b[0]);
}
