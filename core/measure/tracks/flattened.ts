const FRAME_S = 0.02;
/** What is this near to the largest sample of its frame is counted. */
const NEAR = 0.8;
const STEP_DB = 0.5;
const STEPS = 160;
const SHARE_STEPS = 100;
const FAR_UNDER = 10 ** (-24 / 20);
/** The loudest of all frames, by level; peaks are what is within some decibels of the least of them. */
const TOP_SHARE = 0.05;
const LOUD_DB = 3;
/** Frames so far under it never met a limit that the loud ones met. */
const QUIETER_DB = [7, 16] as const;
const LEAST_FRAMES = 25;
/** The crests of a voice are narrow: this much of a loud frame is seldom near its largest sample. */
const FLAT_SHARE = 0.13;
/** Under this a file is too faint to have been too loud anywhere. */
const LEAST_DBFS = -50;

/**
 * How many of the loud peaks were flattened in an earlier stage and then filtered, resampled or given noise, so
 * that no samples are equal any more. What stays is the shape: of a frame of 20 ms, the share of samples
 * that are nearly as large as its largest. Frames are counted by level and share, so memory stays the same.
 */
export class Flattened {
  private readonly counts = new Uint32Array(STEPS * SHARE_STEPS);
  private readonly frame: Float64Array;
  private filled = 0;
  private loudest = 0;

  constructor(sampleRateHz: number) {
    this.frame = new Float64Array(Math.round(FRAME_S * sampleRateHz));
  }

  push(samples: Float64Array, frames: number): void {
    const { frame } = this;
    let at = 0;
    while (at < frames) {
      const taken = Math.min(frames - at, frame.length - this.filled);
      frame.set(samples.subarray(at, at + taken), this.filled);
      this.filled += taken;
      at += taken;
      if (this.filled === frame.length) this.close();
    }
  }

  private close(): void {
    const { frame } = this;
    this.filled = 0;
    let high = 0;
    let low = 0;
    for (let index = 0; index < frame.length; index++) {
      const x = frame[index] as number;
      if (x > high) high = x;
      else if (x < low) low = x;
    }
    const most = Math.max(high, -low);
    const step = Math.floor(STEPS + (20 * Math.log10(Math.max(most, 1e-9))) / STEP_DB);
    if (most < 10 ** (LEAST_DBFS / 20)) return;
    // Far under the loudest so far nothing is compared.
    this.loudest = Math.max(this.loudest, most);
    if (most < this.loudest * FAR_UNDER) {
      this.count(step, 0);
      return;
    }
    // One side alone may have met its limit.
    const onHigh = high >= -low;
    const threshold = NEAR * most;
    let near = 0;
    for (let index = 0; index < frame.length; index++) {
      const x = frame[index] as number;
      if ((onHigh ? x : -x) > threshold) near++;
    }
    this.count(step, Math.min(SHARE_STEPS - 1, Math.floor((near / frame.length) * SHARE_STEPS)));
  }

  private count(step: number, share: number): void {
    const cell = Math.min(STEPS - 1, Math.max(0, step)) * SHARE_STEPS + share;
    this.counts[cell] = (this.counts[cell] as number) + 1;
  }

  /**
   * Part of the loud frames whose crests are flat, less that of the quieter frames of the same sound, which
   * never met the limit: 0 to 1. Null where there are too few.
   */
  share(): number | null {
    const totals = Array.from({ length: STEPS }, (_, step) => this.counts.subarray(step * SHARE_STEPS, (step + 1) * SHARE_STEPS).reduce((sum, count) => sum + count, 0));
    let left = TOP_SHARE * totals.reduce((sum, count) => sum + count, 0);
    let top = STEPS - 1;
    while (top > 0 && left > 0) left -= totals[top--] as number;
    const steps = (db: number) => Math.max(0, Math.round(top + 1 - db / STEP_DB));
    const loud = this.flatBetween(steps(LOUD_DB), STEPS);
    const quieter = this.flatBetween(steps(QUIETER_DB[1]), steps(QUIETER_DB[0]));
    return loud === null || quieter === null ? null : Math.max(0, loud - quieter);
  }

  private flatBetween(from: number, to: number): number | null {
    let all = 0;
    let flat = 0;
    for (let step = from; step < to; step++) {
      for (let share = 0; share < SHARE_STEPS; share++) {
        const count = this.counts[step * SHARE_STEPS + share] as number;
        all += count;
        if (share >= FLAT_SHARE * SHARE_STEPS) flat += count;
      }
    }
    return all < LEAST_FRAMES ? null : flat / all;
  }
}
