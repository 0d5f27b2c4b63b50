import { BIN_S } from './tracks/moments.ts';

const TIME_CONSTANT_S = 0.03;
/** What the envelope takes up of a new millisecond. */
const ADD = 1 - Math.exp(-BIN_S / TIME_CONSTANT_S);
const MARGIN_DB = 15.9;
const HANGOVER_STEPS = 200;
const THRESHOLDS = 26;

/** Active speech level and the share of time in which speech is active. */
export interface SpeechLevel {
  activeLevelDbfs: number | null;
  activityFactor: number | null;
}

/**
 * Active speech level after ITU-T P.56 method B. The envelope is smoothed twice with 30 ms; it counts
 * as active above a threshold and for 200 ms after; the threshold is the one that lies 15.9 dB under
 * the level it gives. The magnitudes are averaged over a millisecond, smoothed and compared (P.56
 * clause 9 asks for 694 values a second or more). Thresholds reach from full scale down by 150 dB, since 24-bit files may be quiet.
 */
export class SpeechLevelMeter {
  /** For each threshold: how long it has not been reached, and in how many steps speech was active. */
  private readonly hang = new Int32Array(THRESHOLDS).fill(HANGOVER_STEPS);
  private readonly active = new Float64Array(THRESHOLDS);
  private steps = 0;
  private p = 0;
  private q = 0;

  /** @param magnitudes mean magnitude of each next millisecond */
  push(magnitudes: Float64Array): void {
    for (let step = 0; step < magnitudes.length; step++) {
      this.p += ADD * ((magnitudes[step] as number) - this.p);
      this.q += ADD * (this.p - this.q);
      this.compare(this.q);
    }
  }

  private compare(envelope: number): void {
    const { hang, active } = this;
    let threshold = 1;
    for (let bit = 0; bit < THRESHOLDS; bit++) {
      const waited = envelope >= threshold ? 0 : Math.min(HANGOVER_STEPS, (hang[bit] as number) + 1);
      hang[bit] = waited;
      if (waited < HANGOVER_STEPS) active[bit] = (active[bit] as number) + 1;
      threshold /= 2;
    }
    this.steps++;
  }

  /** @param meanSquare of all samples */
  finish(meanSquare: number): SpeechLevel {
    let previous: { level: number; excess: number } | null = null;
    for (let bit = THRESHOLDS - 1; bit >= 0; bit--) {
      const active = this.active[bit] as number;
      if (active === 0) break;
      const level = 10 * Math.log10(meanSquare * (this.steps / active));
      const excess = level + 20 * Math.log10(2) * bit - MARGIN_DB;
      if (excess <= 0) {
        const share = previous ? previous.excess / (previous.excess - excess) : 1;
        const activeLevelDbfs = previous ? previous.level + share * (level - previous.level) : level;
        return { activeLevelDbfs, activityFactor: Math.min(1, 10 ** ((10 * Math.log10(meanSquare) - activeLevelDbfs) / 10)) };
      }
      previous = { level, excess };
    }
    return { activeLevelDbfs: null, activityFactor: null };
  }
}
