import type { ChannelContext, Family, Finished } from './family.ts';
import type { ActivityGroup, Span } from './report.types.ts';
import { SpeechLevelMeter } from './speechLevel.ts';
import { findWords } from './words.ts';

/** Where words and pauses are, and the level of the speech while it is active. */
export class Activity implements Family<ActivityGroup> {
  private readonly meter: SpeechLevelMeter;
  private readonly roomTone: Span | null;

  /** @param weightedFrames A-weighted frame energies of the same channel, shared with the noise family */
  constructor(
    { sampleRateHz, options }: ChannelContext,
    private readonly weightedFrames: () => Float64Array,
  ) {
    this.meter = new SpeechLevelMeter(sampleRateHz);
    this.roomTone = options.roomTone;
  }

  push(samples: Float64Array, frames: number): void {
    this.meter.push(samples, frames);
  }

  finish(_before: Finished, warn: (message: string) => void): ActivityGroup {
    const { speech, pause, contrastDb } = findWords(this.weightedFrames());
    if (speech.length === 0) {
      warn(`no words found: loud and quiet moments differ by ${contrastDb.toFixed(1)} dB only, so all of it counts as room tone`);
      return { speech, pause: this.roomTone ? [this.roomTone] : pause, activeLevelDbfs: null, activityFactor: null };
    }
    if (pause.length === 0 && !this.roomTone) warn('no pause of 0.15 s or more: there is no noise floor');
    return { speech, pause: this.roomTone ? [this.roomTone] : pause, ...this.meter.finish() };
  }
}
