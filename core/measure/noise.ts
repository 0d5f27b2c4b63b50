import { powerDb } from '../audio/decibel.ts';
import type { Chapter } from './chapter.ts';
import type { ChannelContext, Family, Finished } from './family.ts';
import { quasiPeak468 } from './quasiPeak468.ts';
import type { NoiseGroup, Span } from './report.types.ts';
import { FRAME_S } from './tracks/frames.ts';

/** Kept off either end of a pause, so that the last of a word does not count as noise. */
const GUARD_S = 0.03;
/** A quasi-peak reading needs a second or two; more of the same noise does not change it. */
const QUASI_PEAK_S = 8;

/**
 * Level of the pauses. Practical floor: what the floor would be once the voice has been brought to the
 * target loudness. Signal-to-noise ratio: active speech level less the floor.
 */
export class Noise implements Family<NoiseGroup> {
  private readonly plain = { sum: 0, count: 0 };
  private readonly weighted = { sum: 0, count: 0 };

  constructor(private readonly context: ChannelContext) {}

  settle({ tracks, weighted, pause, startS, endS }: Chapter): void {
    const plain = tracks.moments.meanSquares();
    for (const span of pause) {
      const [first, end] = guarded(span, startS, endS).map((time, side) => Math.round((time - startS) / FRAME_S + (side === 0 ? 0.4 : -0.4))) as [number, number];
      for (let index = first; index < Math.min(end, weighted.length); index++) {
        this.plain.sum += plain[index] as number;
        this.weighted.sum += weighted[index] as number;
      }
      const frames = Math.max(0, Math.min(end, weighted.length) - first);
      this.plain.count += frames;
      this.weighted.count += frames;
    }
  }

  finish(before: Finished): NoiseGroup {
    const { lengthS, options, sampleRateHz } = this.context;
    const pauses = before.activity?.pause ?? [];
    const floorDbfs = powerDb(this.plain.sum / this.plain.count);
    const floorDbfsA = powerDb(this.weighted.sum / this.weighted.count);
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
  return [startS > firstS ? startS + GUARD_S : startS, endS < lastS - 1e-6 ? endS - GUARD_S : endS];
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
