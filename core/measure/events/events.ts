import { amplitudeDb } from '../../audio/decibel.ts';
import type { Chapter } from '../chapter.types.ts';
import type { ChannelContext, Family } from '../family.ts';
import { LOWEST_CLIP } from '../levels.ts';
import type { AudioEvent } from '../report.types.ts';
import { withoutCorrected } from './corrected.ts';

/** What happened that is not the performance, in order of time. */
export class Events implements Family<AudioEvent[]> {
  private readonly found: AudioEvent[] = [];

  constructor(private readonly context: ChannelContext) {}

  settle(chapter: Chapter): void {
    this.found.push(...chapter.events);
  }

  finish(): AudioEvent[] {
    return [...this.found, ...withoutCorrected(this.clips(), this.context.marked.corrections)].sort((a, b) => a.startS - b.startS || a.kind.localeCompare(b.kind));
  }

  /** Flat tops are known only at the end, since something later may go further. */
  private clips(): AudioEvent[] {
    const { sampleRateHz, tracks } = this.context;
    return tracks.flatTops.spells(LOWEST_CLIP, sampleRateHz).map(({ startSample, endSample, overshoot }) => ({
      kind: 'clip',
      startS: startSample / sampleRateHz,
      endS: endSample / sampleRateHz,
      severityDb: amplitudeDb(1 + Math.max(0, overshoot)) ?? 0,
    }));
  }
}
