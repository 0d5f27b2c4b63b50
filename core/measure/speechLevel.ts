import { GrowingArray } from '../audio/growingArray.ts';

const TIME_CONSTANT_S = 0.03;
const HANGOVER_S = 0.2;
const MARGIN_DB = 15.9;
const STEP_S = 0.001;
const THRESHOLDS = 26;

/** Active speech level and the share of time in which speech is active. */
export interface SpeechLevel {
  activeLevelDbfs: number | null;
  activityFactor: number | null;
}

/**
 * Active speech level after ITU-T P.56 method B. The envelope is smoothed twice with 30 ms; it counts
 * as active above a threshold and for 200 ms after; the threshold is the one that lies 15.9 dB under
 * the level it gives. The envelope is compared every millisecond (P.56 clause 9 asks for 694 values a
 * second or more). Thresholds reach from full scale down by 150 dB, since 24-bit files may be quiet.
 */
export class SpeechLevelMeter {
  private readonly keep: number;
  private readonly step: number;
  private readonly envelope = new GrowingArray();
  private p = 0;
  private q = 0;
  private phase = 0;
  private sumOfSquares = 0;
  private count = 0;

  constructor(sampleRateHz: number) {
    this.keep = Math.exp(-1 / (sampleRateHz * TIME_CONSTANT_S));
    this.step = Math.round(sampleRateHz * STEP_S);
  }

  push(samples: Float64Array, frames: number): void {
    const { keep, step } = this;
    const add = 1 - keep;
    let { p, q, phase } = this;
    let sumOfSquares = 0;
    for (let index = 0; index < frames; index++) {
      const value = samples[index] as number;
      sumOfSquares += value * value;
      p = keep * p + add * (value < 0 ? -value : value);
      q = keep * q + add * p;
      if (++phase === step) {
        this.envelope.push(q);
        phase = 0;
      }
    }
    this.p = p < 1e-30 ? 0 : p;
    this.q = q < 1e-30 ? 0 : q;
    this.phase = phase;
    this.sumOfSquares += sumOfSquares;
    this.count += frames;
  }

  finish(): SpeechLevel {
    const envelope = this.envelope.view();
    const hangover = Math.round(HANGOVER_S / STEP_S);
    let previous: { level: number; excess: number } | null = null;
    for (let bit = THRESHOLDS - 1; bit >= 0; bit--) {
      const threshold = 2 ** -bit;
      let active = 0;
      let hang = hangover;
      for (let index = 0; index < envelope.length; index++) {
        if ((envelope[index] as number) >= threshold) hang = 0;
        else if (hang < hangover) hang++;
        if (hang < hangover) active++;
      }
      if (active === 0) break;
      const level = 10 * Math.log10((this.sumOfSquares / this.count) * (envelope.length / active));
      const excess = level - 20 * Math.log10(threshold) - MARGIN_DB;
      if (excess <= 0) {
        const share = previous ? previous.excess / (previous.excess - excess) : 1;
        const activeLevelDbfs = previous ? previous.level + share * (level - previous.level) : level;
        const meanDbfs = 10 * Math.log10(this.sumOfSquares / this.count);
        return { activeLevelDbfs, activityFactor: Math.min(1, 10 ** ((meanDbfs - activeLevelDbfs) / 10)) };
      }
      previous = { level, excess };
    }
    return { activeLevelDbfs: null, activityFactor: null };
  }
}
