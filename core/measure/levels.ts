import { amplitudeDb, dbAmplitude, powerDb } from '../audio/decibel.ts';
import type { ChannelContext, Family } from './family.ts';
import type { LevelsGroup } from './report.types.ts';
import { TruePeak } from './truePeak.ts';

const SHORTEST_RUN = 3;
const LOWEST_CLIP = dbAmplitude(-12);

/** Runs of equal consecutive samples at one extreme, found while the extreme is still being learnt. */
class ExtremeRuns {
  extreme = 0;
  runs = 0;
  samples = 0;
  private run = 0;

  constructor(private readonly sign: 1 | -1) {}

  push(samples: Float64Array, frames: number): void {
    for (let index = 0; index < frames; index++) {
      const value = (samples[index] as number) * this.sign;
      if (value < this.extreme) {
        this.run = 0;
      } else if (value > this.extreme) {
        this.extreme = value;
        this.runs = 0;
        this.samples = 0;
        this.run = 1;
      } else if (value > 0) {
        this.run++;
        if (this.run === SHORTEST_RUN) {
          this.runs++;
          this.samples += SHORTEST_RUN;
        } else if (this.run > SHORTEST_RUN) this.samples++;
      }
    }
  }
}

/**
 * Peaks, RMS and flat tops. A full-scale sine has an RMS of -3.01 dBFS. A clipped run is three or more
 * equal consecutive samples at the channel's positive or negative extreme, at any level above
 * -12 dBFS, so that flat tops of an analogue stage or a limiter count too.
 */
export class Levels implements Family<LevelsGroup> {
  private readonly truePeak: TruePeak;
  private readonly above = new ExtremeRuns(1);
  private readonly below = new ExtremeRuns(-1);
  private count = 0;
  private sum = 0;
  private sumOfSquares = 0;

  constructor({ sampleRateHz }: ChannelContext) {
    this.truePeak = new TruePeak(sampleRateHz);
  }

  push(samples: Float64Array, frames: number): void {
    let sum = 0;
    let sumOfSquares = 0;
    for (let index = 0; index < frames; index++) {
      const value = samples[index] as number;
      sum += value;
      sumOfSquares += value * value;
    }
    this.sum += sum;
    this.sumOfSquares += sumOfSquares;
    this.count += frames;
    this.above.push(samples, frames);
    this.below.push(samples, frames);
    this.truePeak.push(samples, frames);
  }

  finish(_before: unknown, warn: (message: string) => void): LevelsGroup {
    const samplePeakDbfs = amplitudeDb(Math.max(this.above.extreme, this.below.extreme));
    const rmsDbfs = powerDb(this.sumOfSquares / this.count);
    if (samplePeakDbfs === null) warn('digital silence: there is no level to state');
    const clipped = [this.above, this.below].filter((side) => side.extreme > LOWEST_CLIP);
    return {
      samplePeakDbfs,
      truePeakDbtp: amplitudeDb(this.truePeak.finish()),
      rmsDbfs,
      crestDb: samplePeakDbfs === null || rmsDbfs === null ? null : samplePeakDbfs - rmsDbfs,
      dcOffset: this.sum / this.count,
      clippedRuns: clipped.reduce((sum, side) => sum + side.runs, 0),
      clippedSamples: clipped.reduce((sum, side) => sum + side.samples, 0),
    };
  }
}
