import { GrowingArray } from '../../audio/growingArray.ts';
import type { SampleBlock } from '../../audio/kernels/sampleBlock.types.ts';

export const CREST_FRAME_S = 0.02;
/** What is this near to the largest sample of its frame is counted. */
const NEAR = 0.8;
const STEP_DB = 0.5;
const STEPS = 160;
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
 * Shape of the crests of every 20 ms, for peaks that were flattened in an earlier stage and then filtered, resampled
 * or given noise, so that no samples are equal any more: the share of samples nearly as large as the largest.
 */
export class Crests {
  private readonly levels = new GrowingArray();
  private readonly shares = new GrowingArray();
  private readonly length: number;
  private filled = 0;
  private loudest = 0;

  constructor(sampleRateHz: number) {
    this.length = Math.round(CREST_FRAME_S * sampleRateHz);
  }

  push(block: SampleBlock, frames: number): void {
    let at = 0;
    while (at < frames) {
      const taken = Math.min(frames - at, this.length - this.filled);
      block.gather(at, taken, this.filled);
      this.filled += taken;
      at += taken;
      if (this.filled === this.length) this.close(block);
    }
  }

  private close(block: SampleBlock): void {
    const { length } = this;
    this.filled = 0;
    block.crests(length);
    const high = block.results[0] as number;
    const low = block.results[1] as number;
    const most = Math.max(high, -low);
    this.loudest = Math.max(this.loudest, most);
    this.levels.push(20 * Math.log10(Math.max(most, 1e-9)));
    // Far under the loudest so far nothing is compared. One side alone may have met its limit.
    this.shares.push(most < this.loudest * FAR_UNDER ? 0 : block.over(length, NEAR * most, high >= -low ? 1 : -1) / length);
  }

  /** Largest sample of each frame since the start or the last `clear`, in dBFS. */
  levelsDbfs(): Float64Array {
    return this.levels.view();
  }

  /** Share of samples that are nearly as large, of the same frames. */
  nearShares(): Float64Array {
    return this.shares.view();
  }

  clear(): void {
    this.levels.clear();
    this.shares.clear();
  }
}

/** Frames counted by level and by whether their crests are flat, so that memory stays the same. */
export class Flattened {
  private readonly all = new Uint32Array(STEPS);
  private readonly flat = new Uint32Array(STEPS);

  /** @param nearShare see {@link Crests} */
  add(levelDbfs: number, nearShare: number): void {
    if (levelDbfs < LEAST_DBFS) return;
    const step = Math.min(STEPS - 1, Math.max(0, Math.floor(STEPS + levelDbfs / STEP_DB)));
    this.all[step] = (this.all[step] as number) + 1;
    if (nearShare >= FLAT_SHARE) this.flat[step] = (this.flat[step] as number) + 1;
  }

  /**
   * Part of the loud frames whose crests are flat, less that of the quieter frames of the same sound, which
   * never met the limit: 0 to 1. Null where there are too few.
   */
  share(): number | null {
    let left = TOP_SHARE * this.all.reduce((sum, count) => sum + count, 0);
    let top = STEPS - 1;
    while (top > 0 && left > 0) left -= this.all[top--] as number;
    const steps = (db: number) => Math.max(0, Math.round(top + 1 - db / STEP_DB));
    const loud = this.flatBetween(steps(LOUD_DB), STEPS);
    const quieter = this.flatBetween(steps(QUIETER_DB[1]), steps(QUIETER_DB[0]));
    return loud === null || quieter === null ? null : Math.max(0, loud - quieter);
  }

  private flatBetween(from: number, to: number): number | null {
    const sum = (counts: Uint32Array) => counts.subarray(from, to).reduce((total, count) => total + count, 0);
    return sum(this.all) < LEAST_FRAMES ? null : sum(this.flat) / sum(this.all);
  }
}
