import { GrowingArray } from '../audio/growingArray.ts';

/** Length of the frames in which energies are kept, in seconds. */
export const FRAME_S = 0.01;

/**
 * Mean squares of consecutive 10 ms frames. Where 10 ms is not a whole number of samples, frame
 * borders fall on the nearest sample, so that frames do not drift against the clock.
 */
export class FrameEnergies {
  private readonly means = new GrowingArray();
  private sum = 0;
  private inFrame = 0;
  private length: number;

  constructor(private readonly sampleRateHz: number) {
    this.length = this.border(1);
  }

  private border(frame: number): number {
    return Math.round(frame * FRAME_S * this.sampleRateHz) - Math.round((frame - 1) * FRAME_S * this.sampleRateHz);
  }

  push(samples: Float64Array, frames: number): void {
    let at = 0;
    while (at < frames) {
      const take = Math.min(this.length - this.inFrame, frames - at);
      let sum = 0;
      for (const end = at + take; at < end; at++) {
        const x = samples[at] as number;
        sum += x * x;
      }
      this.sum += sum;
      this.inFrame += take;
      if (this.inFrame === this.length) {
        this.means.push(this.sum / this.length);
        this.sum = 0;
        this.inFrame = 0;
        this.length = this.border(this.means.length + 1);
      }
    }
  }

  /** Mean squares so far; an unfinished last frame is left out. */
  view(): Float64Array {
    return this.means.view();
  }
}

/** Mean of a run of frames. */
export function meanOf(values: Float64Array, start: number, end: number): number {
  let sum = 0;
  for (let index = start; index < end; index++) sum += values[index] as number;
  return end > start ? sum / (end - start) : 0;
}
