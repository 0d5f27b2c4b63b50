import { amplitudeDb, dbAmplitude, powerDb } from '../audio/decibel.ts';
import type { Chapter } from './chapter.types.ts';
import { flatSpans } from './events/flatSpans.ts';
import type { ChannelContext, Family, Finished, Warn } from './family.ts';
import type { LevelsGroup, Span } from './report.types.ts';
import { insideSpans, joinSpans } from './spans.ts';
import { CREST_FRAME_S, Flattened } from './tracks/flattened.ts';
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
  private readonly flattened = new Flattened();

  constructor(private readonly context: ChannelContext) {
    this.truePeak = new TruePeak(context.tracks.block, context.sampleRateHz);
  }

  push(_samples: Float64Array, frames: number): void {
    this.truePeak.push(frames);
  }

  /** Crests of words only: air, pops and knocks have broad ones, and what is cut off here is clipping, and told as such. */
  settle({ tracks, speech, events, startS }: Chapter): void {
    const levels = tracks.crests.levelsDbfs();
    const shares = tracks.crests.nearShares();
    const times = Float64Array.from(levels, (_, frame) => startS + (frame + 0.5) * CREST_FRAME_S);
    const spoken = insideSpans(times, speech, 0);
    const disturbed = joinSpans(
      [...events.map((event): Span => [event.startS, event.endS]), ...flatSpans(tracks, CREST_FRAME_S)].sort((a, b) => a[0] - b[0]),
      CREST_FRAME_S,
    );
    const spoiled = insideSpans(times, disturbed, CREST_FRAME_S / 2);
    for (let frame = 0; frame < levels.length; frame++) if (spoken[frame] && !spoiled[frame]) this.flattened.add(levels[frame] as number, shares[frame] as number);
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
