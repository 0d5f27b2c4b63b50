import { GrowingArray } from '../../audio/growingArray.ts';
import type { SampleBlock } from '../../audio/kernels/sampleBlock.types.ts';

/** Length of the bins in which the largest break is kept, in seconds. */
export const BREAK_BIN_S = 0.0005;

/**
 * How far each sample is from what its neighbours predict: the third difference, which is the error of
 * carrying on a parabola through the three samples before. Of every bin of half a millisecond the
 * largest and the mean square are kept. Filters and rooms make a sound smooth, so an isolated large value is a jump in
 * the wave itself.
 */
export class Discontinuities {
  private readonly largest = new GrowingArray();
  private readonly means = new GrowingArray();
  private readonly binLength: number;
  private inBin = 0;
  private max = 0;
  private sum = 0;

  constructor(sampleRateHz: number) {
    this.binLength = Math.max(4, Math.round(sampleRateHz * BREAK_BIN_S));
  }

  push(block: SampleBlock, frames: number): void {
    const { results } = block;
    let at = 0;
    while (at < frames) {
      const end = Math.min(frames, at + this.binLength - this.inBin);
      this.inBin += end - at;
      block.breaks(at, end);
      at = end;
      this.max = Math.max(this.max, results[0] as number);
      this.sum += results[1] as number;
      if (this.inBin < this.binLength) continue;
      this.largest.push(this.max);
      this.means.push(this.sum / this.binLength);
      this.max = 0;
      this.sum = 0;
      this.inBin = 0;
    }
  }

  /** Largest third difference of each bin. */
  view(): Float64Array {
    return this.largest.view();
  }

  /** Mean square of the third difference of each bin: of sound near the top of the spectrum. */
  meanSquares(): Float64Array {
    return this.means.view();
  }

  /** Length of a bin in samples. */
  get binSamples(): number {
    return this.binLength;
  }

  clear(): void {
    this.largest.clear();
    this.means.clear();
  }
}
