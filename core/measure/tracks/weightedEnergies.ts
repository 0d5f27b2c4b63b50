import { GrowingArray } from '../../audio/growingArray.ts';
import type { SampleBlock } from '../../audio/kernels/sampleBlock.types.ts';
import { aWeighting, kWeighting } from '../../audio/weighting.ts';
import { FINE_FRAME_S, FRAME_S } from './frames.ts';

const FINE_IN_FRAME = Math.round(FRAME_S / FINE_FRAME_S);

/**
 * Mean squares behind the A and the K weighting, which go over the samples side by side: A-weighted ones of
 * 2 ms, K-weighted ones of 10 ms. Where a frame is not a whole number of samples, its borders fall on the nearest
 * sample, so that frames do not drift against the clock.
 */
export class WeightedEnergies {
  private readonly fineA = new GrowingArray();
  private readonly framesK = new GrowingArray();
  private sumA = 0;
  private sumK = 0;
  private inFine = 0;
  private inFrame = 0;
  private finished = 0;
  private length: number;

  constructor(
    private readonly block: SampleBlock,
    private readonly sampleRateHz: number,
  ) {
    block.setFilters(aWeighting(sampleRateHz), kWeighting(sampleRateHz));
    this.length = this.nextLength();
  }

  private nextLength(): number {
    const step = FINE_FRAME_S * this.sampleRateHz;
    return Math.round((this.finished + 1) * step) - Math.round(this.finished * step);
  }

  push(frames: number): void {
    const { block } = this;
    const { results } = block;
    let at = 0;
    while (at < frames) {
      const end = Math.min(frames, at + this.length - this.inFine);
      this.inFine += end - at;
      block.weighted(at, end);
      at = end;
      this.sumA += results[0] as number;
      this.sumK += results[1] as number;
      if (this.inFine === this.length) this.close();
    }
  }

  private close(): void {
    this.fineA.push(this.sumA / this.length);
    this.sumA = 0;
    this.inFrame += this.length;
    this.inFine = 0;
    this.finished++;
    this.length = this.nextLength();
    if (this.finished % FINE_IN_FRAME !== 0) return;
    this.framesK.push(this.sumK / this.inFrame);
    this.sumK = 0;
    this.inFrame = 0;
  }

  /** A-weighted mean squares of 2 ms since the last `clear`; an unfinished one is left out. */
  fine(): Float64Array {
    return this.fineA.view();
  }

  /** K-weighted mean squares of 10 ms since they were last forgotten. */
  loud(): Float64Array {
    return this.framesK.view();
  }

  clear(): void {
    this.fineA.clear();
  }

  forgetLoud(): void {
    this.framesK.clear();
  }
}
