import type { ChannelContext, Family, Finished, Warn } from './family.ts';
import { LoudnessHistogram } from './loudnessHistogram.ts';
import type { LoudnessGroup } from './report.types.ts';

const MOMENTARY_FRAMES = 40;
const SHORT_TERM_FRAMES = 300;
const HOP_FRAMES = 10;
const ABSOLUTE_GATE_LUFS = -70;
const OFFSET_LUFS = -0.691;

/** Loudness of a K-weighted mean square, ITU-R BS.1770-5 Annex 1. */
export const loudnessOf = (power: number) => OFFSET_LUFS + 10 * Math.log10(power);
const powerOf = (lufs: number) => 10 ** ((lufs - OFFSET_LUFS) / 10);
/** What is quieter is no programme. */
export const ABSOLUTE_GATE_POWER = powerOf(ABSOLUTE_GATE_LUFS);

/** K-weighted energies of one channel; its loudness when it is judged as one front channel. */
export class Loudness implements Family<LoudnessGroup> {
  private readonly meter: LoudnessMeter;
  private taken = 0;

  constructor(private readonly context: ChannelContext) {
    this.meter = new LoudnessMeter(context.options.dualMono ? 2 : 1);
  }

  push(): void {
    const fresh = this.fresh();
    while (this.taken < fresh.length) this.meter.push(fresh[this.taken++] as number);
  }

  /** K-weighted mean squares of the 10 ms frames completed since they were last forgotten, for the programme. */
  fresh(): Float64Array {
    return this.context.tracks.weighted.loud();
  }

  forgetFresh(): void {
    this.context.tracks.weighted.forgetLoud();
    this.taken = 0;
  }

  finish(_before: Finished, warn: Warn): LoudnessGroup {
    return this.meter.finish(warn);
  }
}

/**
 * Loudness from K-weighted energies of 10 ms frames, channels already summed with their weights.
 * ITU-R BS.1770-5 Annex 1 (400 ms blocks, 75 % overlap, gates at -70 LUFS and -10 LU), EBU Tech 3341
 * (momentary 0.4 s, short-term 3 s, not gated) and Tech 3342 (loudness range). Maxima are taken at
 * every 10 ms, so that they do not depend on where a block happens to start. Memory does not grow.
 */
export class LoudnessMeter {
  private readonly ring = new Float64Array(SHORT_TERM_FRAMES);
  private readonly momentaryBlocks = new LoudnessHistogram(ABSOLUTE_GATE_POWER);
  private readonly shortTermBlocks = new LoudnessHistogram(ABSOLUTE_GATE_POWER);
  private frames = 0;
  private momentary = 0;
  private shortTerm = 0;
  private momentaryMax = 0;
  private shortTermMax = 0;

  /** @param gain factor on all energies */
  constructor(private readonly gain: number) {}

  push(frame: number): void {
    const { ring } = this;
    const energy = frame * this.gain;
    const at = this.frames % SHORT_TERM_FRAMES;
    const leaving = ring[(at + SHORT_TERM_FRAMES - MOMENTARY_FRAMES) % SHORT_TERM_FRAMES] as number;
    this.momentary += energy - leaving;
    this.shortTerm += energy - (ring[at] as number);
    ring[at] = energy;
    this.frames++;
    if (this.frames >= MOMENTARY_FRAMES) {
      if (this.momentary > this.momentaryMax) this.momentaryMax = this.momentary;
      if ((this.frames - MOMENTARY_FRAMES) % HOP_FRAMES === 0) this.momentaryBlocks.add(this.momentary / MOMENTARY_FRAMES);
    }
    if (this.frames >= SHORT_TERM_FRAMES) {
      if (this.shortTerm > this.shortTermMax) this.shortTermMax = this.shortTerm;
      if ((this.frames - SHORT_TERM_FRAMES) % HOP_FRAMES === 0) this.shortTermBlocks.add(this.shortTerm / SHORT_TERM_FRAMES);
    }
    // The running sums gather rounding errors; once in a while they are made anew.
    if (this.frames % 30_000 === 0) this.sumAnew();
  }

  private sumAnew(): void {
    this.shortTerm = this.ring.reduce((sum, value) => sum + value, 0);
    this.momentary = 0;
    for (let back = 1; back <= MOMENTARY_FRAMES; back++) this.momentary += this.ring[(this.frames - back) % SHORT_TERM_FRAMES] as number;
  }

  finish(warn: Warn): LoudnessGroup {
    if (this.frames < MOMENTARY_FRAMES) {
      warn('shorter than 0.4 s: loudness needs at least one block of 400 ms');
      return { integratedLufs: null, momentaryMaxLufs: null, shortTermMaxLufs: null, loudnessRangeLu: null };
    }
    const integratedLufs = this.integrated();
    if (integratedLufs === null) warn('nothing is louder than -70 LUFS: there is no integrated loudness');
    const long = this.frames >= SHORT_TERM_FRAMES;
    if (!long) warn('shorter than 3 s: there is no short-term loudness and no loudness range');
    return {
      integratedLufs,
      momentaryMaxLufs: this.momentaryMax > 0 ? loudnessOf(this.momentaryMax / MOMENTARY_FRAMES) : null,
      shortTermMaxLufs: this.shortTermMax > 0 ? loudnessOf(this.shortTermMax / SHORT_TERM_FRAMES) : null,
      loudnessRangeLu: long ? this.range() : null,
    };
  }

  private integrated(): number | null {
    const gated = this.momentaryBlocks.gatedMean();
    return gated === null ? null : loudnessOf(gated);
  }

  /** EBU Tech 3342: spread of the short-term loudness between its 10th and 95th percentile, gated at -20 LU. */
  private range(): number | null {
    const ungated = this.shortTermBlocks.meanAbove(0);
    if (ungated === null) return null;
    const [low, high] = [0.1, 0.95].map((share) => this.shortTermBlocks.quantileAbove(ungated * 10 ** -2, share));
    return low && high ? loudnessOf(high) - loudnessOf(low) : null;
  }
}

/** Weight of a channel in the programme: 1.41 for surround positions and 0 for LFE, where a mask says so. */
export function channelWeights(channelMask: number, channels: number): number[] {
  const LFE = 0x8;
  const SURROUND = 0x10 | 0x20 | 0x200 | 0x400;
  const positions: number[] = [];
  for (let bit = 1; bit <= 0x20000 && positions.length < channels; bit <<= 1) if (channelMask & bit) positions.push(bit);
  return Array.from({ length: channels }, (_, index) => {
    const position = positions[index] ?? 0;
    if (position & LFE) return 0;
    return position & SURROUND ? 1.41 : 1;
  });
}
