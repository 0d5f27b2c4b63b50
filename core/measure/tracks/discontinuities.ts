import { GrowingArray } from '../../audio/growingArray.ts';

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
  private x1 = 0;
  private x2 = 0;
  private x3 = 0;
  private inBin = 0;
  private max = 0;
  private sum = 0;

  constructor(sampleRateHz: number) {
    this.binLength = Math.max(4, Math.round(sampleRateHz * BREAK_BIN_S));
  }

  push(samples: Float64Array, frames: number): void {
    let { x1, x2, x3, max, sum, inBin } = this;
    let at = 0;
    while (at < frames) {
      const end = Math.min(frames, at + this.binLength - inBin);
      inBin += end - at;
      for (; at < end; at++) {
        const x = samples[at] as number;
        const error = Math.abs(x - x3 + 3 * (x2 - x1));
        if (error > max) max = error;
        sum += error * error;
        x3 = x2;
        x2 = x1;
        x1 = x;
      }
      if (inBin === this.binLength) {
        this.largest.push(max);
        this.means.push(sum / this.binLength);
        max = 0;
        sum = 0;
        inBin = 0;
      }
    }
    this.x1 = x1;
    this.x2 = x2;
    this.x3 = x3;
    this.max = max;
    this.sum = sum;
    this.inBin = inBin;
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
