import { type Likeness, openLikeness } from '../../audio/kernels/likeness.ts';
import type { SampleBlock } from '../../audio/kernels/sampleBlock.types.ts';

/** Blocks that a link plays again are this long. */
const SHORTEST_BLOCK_S = 0.004;
const LONGEST_BLOCK_S = 0.022;
/** How often it is asked whether what comes was there before. */
const PROBE_S = 0.0034;
/** So many samples in a row are the same as before, to this share of their own size. */
const ALIKE = 16;
const TOLERANCE = 0.02;
/** Just before, they are not: a voice comes to repeat itself little by little, a link from one sample to the next. */
const UNALIKE_BEFORE_S = 0.001;
const UNALIKE = 0.3;
/** What goes on repeating itself is a tone. */
const LONGEST_RUN_S = 0.16;
/** Changes from sample to sample under this are silence. */
const LEAST_CHANGE = 1e-5;
const BLOCK = 4096;
/** What is over is moved out of the way only when there is this much of it. */
const SPARE = 60_000;

/** Where a stretch is the same as what came just before it, in samples from the start. */
export interface Repeat {
  startSample: number;
  endSample: number;
}

/**
 * Stretches in which a wave is, sample for sample, what it was 4 to 22 ms before: a digital link that
 * plays its last block again for one that is lost. Changes between samples are compared, where a voice
 * at its pitch is never so exactly itself.
 */
export class Repeats {
  private readonly likeness: Likeness;
  private readonly kept: Float64Array;
  private readonly reach: number;
  private readonly lags: readonly [number, number];
  private readonly probe: number;
  private readonly before: number;
  private readonly longest: number;
  private found: Repeat[] = [];
  private filled = 0;
  /** Sample number of the first one kept. */
  private firstKept = 0;
  private nextProbe: number;
  /** Sample number where the last run ended that was too long for a block: what goes on from there is the same tone. */
  private toneEnd = 0;

  constructor(sampleRateHz: number) {
    this.lags = [Math.round(SHORTEST_BLOCK_S * sampleRateHz), Math.round(LONGEST_BLOCK_S * sampleRateHz)];
    this.probe = Math.max(8, Math.round(PROBE_S * sampleRateHz));
    this.before = Math.max(8, Math.round(UNALIKE_BEFORE_S * sampleRateHz));
    this.longest = Math.round(LONGEST_RUN_S * sampleRateHz);
    // A run is followed forward as far as samples are there, so that much waits for its turn.
    this.reach = this.lags[1] + this.before + this.probe;
    this.likeness = openLikeness(this.reach + this.longest + SPARE + 2 * BLOCK + ALIKE);
    this.kept = this.likeness.samples;
    this.nextProbe = this.reach;
  }

  /** Takes at most 4096 samples. */
  push(block: SampleBlock, frames: number): void {
    const { kept } = this;
    block.differ(frames);
    kept.set(block.changes.subarray(0, frames), this.filled);
    this.filled += frames;
    this.look(this.filled - this.longest - ALIKE);
    const spare = this.nextProbe - this.firstKept - this.reach;
    if (spare > SPARE) {
      kept.copyWithin(0, spare, this.filled);
      this.filled -= spare;
      this.firstKept += spare;
    }
  }

  /** Looks at what still waits for more. */
  flush(): void {
    this.look(this.filled - ALIKE);
  }

  private look(end: number): void {
    while (this.nextProbe - this.firstKept < end) {
      const at = this.nextProbe - this.firstKept;
      const lag = this.likeness.lagAt(at, ALIKE, this.lags[0], this.lags[1], TOLERANCE, LEAST_CHANGE);
      const run = lag > 0 ? this.runAt(at, lag) : null;
      if (run) {
        if (run.sudden) this.found.push({ startSample: this.firstKept + run.from, endSample: this.firstKept + run.to });
        if (run.to - run.from >= this.longest) this.toneEnd = this.firstKept + run.to;
        this.nextProbe = this.firstKept + run.to + this.probe;
      } else this.nextProbe += this.probe;
    }
  }

  /** From where to where it goes on like that; null where it is no whole block, or far too long for one. */
  private runAt(at: number, lag: number): { from: number; to: number; sudden: boolean } | null {
    const { kept } = this;
    let size = 0;
    for (let index = at; index < at + ALIKE; index++) size += Math.abs(kept[index] as number);
    const tolerance = (4 * TOLERANCE * size) / ALIKE;
    const alike = (index: number) => Math.abs((kept[index] as number) - (kept[index - lag] as number)) <= tolerance;
    const toneEnd = this.toneEnd - this.firstKept;
    const earliest = Math.max(lag + this.before, at - this.longest, toneEnd);
    let from = at;
    while (from > earliest && alike(from - 1)) from--;
    let to = at + ALIKE;
    while (to < this.filled && to - from < this.longest && alike(to)) to++;
    if (to - from < this.lags[0]) return null;
    let off = 0;
    let own = 0;
    for (let index = from - this.before; index < from; index++) {
      off += Math.abs((kept[index] as number) - (kept[index - lag] as number));
      own += Math.abs(kept[index] as number);
    }
    return { from, to, sudden: to - from < this.longest && from !== toneEnd && off > UNALIKE * own };
  }

  /** What was found since the start or the last `clear`. */
  view(): readonly Repeat[] {
    return this.found;
  }

  clear(): void {
    this.found = [];
  }
}
