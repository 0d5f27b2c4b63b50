import { Biquad } from '../audio/biquad.ts';
import { powerDb } from '../audio/decibel.ts';
import { aWeighting } from '../audio/weighting.ts';
import type { ChannelContext, Family, Finished } from './family.ts';
import { FRAME_S, FrameEnergies } from './frames.ts';
import type { NoiseGroup, Span } from './report.types.ts';

/** Kept off either end of a pause, so that the last of a word does not count as noise. */
const GUARD_S = 0.03;

/**
 * Level of the pauses. Practical floor: what the floor would be once the voice has been brought to the
 * target loudness. Signal-to-noise ratio: active speech level less the floor.
 */
export class Noise implements Family<NoiseGroup> {
  private readonly sections: Biquad[];
  private readonly plain: FrameEnergies;
  private readonly weighted: FrameEnergies;
  private readonly scratch = new Float64Array(16_384);
  private readonly targetLufs: number;

  constructor({ sampleRateHz, options }: ChannelContext) {
    this.sections = aWeighting(sampleRateHz).map((section) => new Biquad(section));
    this.plain = new FrameEnergies(sampleRateHz);
    this.weighted = new FrameEnergies(sampleRateHz);
    this.targetLufs = options.targetLufs;
  }

  push(samples: Float64Array, frames: number): void {
    this.plain.push(samples, frames);
    let input = samples;
    for (const section of this.sections) {
      section.process(input, this.scratch, frames);
      input = this.scratch;
    }
    this.weighted.push(this.scratch, frames);
  }

  /** A-weighted mean squares of 10 ms frames. */
  weightedFrames(): Float64Array {
    return this.weighted.view();
  }

  /** Unweighted mean squares of 10 ms frames. */
  plainFrames(): Float64Array {
    return this.plain.view();
  }

  finish(before: Finished, _warn: (message: string) => void): NoiseGroup {
    const pauses = before.activity?.pause ?? [];
    const floorDbfs = powerDb(meanOverSpans(this.plain.view(), pauses));
    const floorDbfsA = powerDb(meanOverSpans(this.weighted.view(), pauses));
    const hasWords = (before.activity?.speech.length ?? 0) > 0;
    const loudness = hasWords ? (before.loudness?.integratedLufs ?? null) : null;
    const practical = (floor: number | null) => (floor === null || loudness === null ? null : floor + this.targetLufs - loudness);
    const active = before.activity?.activeLevelDbfs ?? null;
    return {
      floorDbfs,
      floorDbfsA,
      practicalFloorDbfs: practical(floorDbfs),
      practicalFloorDbfsA: practical(floorDbfsA),
      snrDb: active === null || floorDbfs === null ? null : active - floorDbfs,
    };
  }
}

function meanOverSpans(frames: Float64Array, spans: readonly Span[]): number {
  let sum = 0;
  let count = 0;
  for (const [startS, endS] of spans) {
    const start = Math.ceil((startS + (startS > 0 ? GUARD_S : 0)) / FRAME_S - 1e-6);
    const end = Math.min(frames.length, Math.floor((endS - (endS < frames.length * FRAME_S ? GUARD_S : 0)) / FRAME_S + 1e-6));
    for (let index = start; index < end; index++) sum += frames[index] as number;
    count += Math.max(0, end - start);
  }
  return count > 0 ? sum / count : 0;
}
