import type { Chapter } from './chapter.types.ts';
import type { ChannelContext, Family, Finished, Warn } from './family.ts';
import { SHORTEST_PAUSE_S } from './findWords.ts';
import type { ActivityGroup, Span } from './report.types.ts';
import { joinSpans } from './spans.ts';
import { SpeechLevelMeter } from './speechLevel.ts';

/** Where words and pauses are, and the level of the speech while it is active. */
export class Activity implements Family<ActivityGroup> {
  private readonly meter = new SpeechLevelMeter();
  private readonly speech: Span[] = [];
  private readonly pause: Span[] = [];
  private contrastDb = 0;

  constructor(private readonly context: ChannelContext) {}

  push(): void {
    this.meter.push(this.context.tracks.moments.magnitudesOfBlock());
  }

  settle(chapter: Chapter): void {
    this.speech.push(...chapter.speech);
    this.pause.push(...chapter.pause);
    this.contrastDb = Math.max(this.contrastDb, chapter.contrastDb);
  }

  finish(_before: Finished, warn: Warn): ActivityGroup {
    const { moments } = this.context.tracks;
    const speech = joinSpans(this.speech, SHORTEST_PAUSE_S);
    const pause = joinSpans(this.pause, 1e-6);
    if (speech.length === 0) {
      warn(`no words found: loud and quiet moments differ by ${this.contrastDb.toFixed(1)} dB only, so all of it counts as room tone`);
      return { speech, pause, activeLevelDbfs: null, activityFactor: null };
    }
    if (pause.length === 0) warn('no pause of 0.15 s or more outside events: there is no noise floor; mark some room tone by hand');
    return { speech, pause, ...this.meter.finish(moments.sumOfSquares / moments.count) };
  }
}
