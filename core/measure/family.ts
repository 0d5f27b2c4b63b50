import type { Chapter } from './chapter.types.ts';
import type { ChannelReport, MarkedByHand, MeasureOptions } from './report.types.ts';
import type { ChannelTracks } from './tracks/channelTracks.ts';

/** What every family may know of its channel. */
export interface ChannelContext {
  sampleRateHz: number;
  /** Length of the whole file in seconds. */
  lengthS: number;
  options: MeasureOptions;
  marked: MarkedByHand;
  /** What the families share; shown every block before they are. */
  tracks: ChannelTracks;
  /** A second look at a few seconds of the channel, from `startS` on. */
  look(startS: number, lengthS: number): Float64Array;
}

/** What families leave for those that finish after them. */
export type Finished = Partial<Omit<ChannelReport, 'index' | 'name'>>;

/** A place for what could not be measured and why. */
export type Warn = (message: string) => void;

/**
 * A measure family at work on one channel. It is shown every block once, in order; at the end of every
 * chapter (some minutes) what was found in it: words, pauses, events; and then says what it makes of
 * it. `finish` gets what the families before it found. To add a family, write a file of this shape,
 * add its group to report.types.ts, its line to families.ts, its figures to catalogue.ts and its row
 * to docs/methods.md.
 */
export interface Family<Group> {
  push?(samples: Float64Array, frames: number): void;
  settle?(chapter: Chapter): void;
  finish(before: Finished, warn: Warn): Group;
}
