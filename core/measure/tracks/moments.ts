import { GrowingArray } from '../../audio/growingArray.ts';
import type { SampleBlock } from '../../audio/kernels/sampleBlock.types.ts';
import { FRAME_S } from './frames.ts';

/** Length of the bins whose mean magnitude is kept, in seconds. */
export const BIN_S = 0.001;
const BINS_PER_FRAME = Math.round(FRAME_S / BIN_S);

/**
 * Sums of the samples, of their magnitudes and of their squares, in one loop: the whole for offset and
 * RMS, magnitudes of every millisecond for the speech level, mean squares of 10 ms frames.
 */
export class Moments {
  private readonly frames = new GrowingArray();
  private readonly magnitudes = new GrowingArray();
  sum = 0;
  sumOfSquares = 0;
  count = 0;
  private magnitude = 0;
  private inBin = 0;
  private binLength: number;
  private bins = 0;
  private frameSquares = 0;
  private frameSamples = 0;

  constructor(private readonly sampleRateHz: number) {
    this.binLength = this.nextLength();
  }

  private nextLength(): number {
    const step = BIN_S * this.sampleRateHz;
    return Math.round((this.bins + 1) * step) - Math.round(this.bins * step);
  }

  /** The magnitudes of {@link magnitudesOfBlock} are those of the bins that this block completed. */
  push(block: SampleBlock, frames: number): void {
    const { results } = block;
    this.magnitudes.clear();
    this.count += frames;
    let at = 0;
    while (at < frames) {
      const end = Math.min(frames, at + this.binLength - this.inBin);
      this.inBin += end - at;
      this.frameSamples += end - at;
      block.sums(at, end);
      at = end;
      const squares = results[2] as number;
      this.sum += results[0] as number;
      this.magnitude += results[1] as number;
      this.sumOfSquares += squares;
      this.frameSquares += squares;
      if (this.inBin === this.binLength) this.closeBin();
    }
  }

  private closeBin(): void {
    this.magnitudes.push(this.magnitude / this.binLength);
    this.magnitude = 0;
    this.inBin = 0;
    this.bins++;
    this.binLength = this.nextLength();
    if (this.bins % BINS_PER_FRAME === 0) {
      this.frames.push(this.frameSquares / this.frameSamples);
      this.frameSquares = 0;
      this.frameSamples = 0;
    }
  }

  /** Mean magnitude of each bin that the last block completed. */
  magnitudesOfBlock(): Float64Array {
    return this.magnitudes.view();
  }

  /** Mean squares of the 10 ms frames since the last `clear`. */
  meanSquares(): Float64Array {
    return this.frames.view();
  }

  clear(): void {
    this.frames.clear();
  }
}
