import { amplitudeDb, dbAmplitude, powerDb } from '../audio/decibel.ts';
import type { ChannelContext, Family, Finished, Warn } from './family.ts';
import type { LevelsGroup } from './report.types.ts';
import { Flattened } from './tracks/flattened.ts';
import { TruePeak } from './truePeak.ts';

/** Flat tops lower than this are not called clipped. */
export const LOWEST_CLIP = dbAmplitude(-12);

/**
 * Peaks, RMS and flat tops. A full-scale sine has an RMS of -3.01 dBFS. A clipped run is three or more
 * equal consecutive samples at the channel's positive or negative extreme, at any level above
 * -12 dBFS, so that flat tops of an analogue stage or a limiter count too.
 */
export class Levels implements Family<LevelsGroup> {
  private readonly truePeak: TruePeak;
  private readonly flattened: Flattened;

  constructor(private readonly context: ChannelContext) {
    this.truePeak = new TruePeak(context.sampleRateHz);
    this.flattened = new Flattened(context.sampleRateHz);
  }

  push(samples: Float64Array, frames: number): void {
    this.truePeak.push(samples, frames, this.context.tracks.extremes);
    this.flattened.push(samples, frames);
  }

  finish(_before: Finished, warn: Warn): LevelsGroup {
    const { moments, flatTops } = this.context.tracks;
    const { above, below } = flatTops;
    const samplePeakDbfs = amplitudeDb(Math.max(above.extreme, below.extreme));
    const rmsDbfs = powerDb(moments.sumOfSquares / moments.count);
    if (samplePeakDbfs === null) warn('digital silence: there is no level to state');
    const clipped = [above, below].filter((side) => side.extreme > LOWEST_CLIP);
    return {
      samplePeakDbfs,
      truePeakDbtp: amplitudeDb(this.truePeak.finish()),
      rmsDbfs,
      crestDb: samplePeakDbfs === null || rmsDbfs === null ? null : samplePeakDbfs - rmsDbfs,
      dcOffset: moments.sum / moments.count,
      clippedRuns: clipped.reduce((sum, side) => sum + side.runs, 0),
      clippedSamples: clipped.reduce((sum, side) => sum + side.samples, 0),
      flattenedShare: this.flattened.share(),
    };
  }
}
