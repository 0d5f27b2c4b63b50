import type { ChannelReport, MeasureOptions } from './report.types.ts';

/** What every family may know of the channel before the first sample. */
export interface ChannelContext {
  sampleRateHz: number;
  options: MeasureOptions;
}

/** What families leave for those that finish after them. */
export type Finished = Partial<Omit<ChannelReport, 'index' | 'name'>>;

/**
 * A measure family at work on one channel: it is shown every block once, in order, and then says what
 * it found. `finish` gets what the families before it found, and a place for warnings.
 */
export interface Family<Group> {
  push(samples: Float64Array, frames: number): void;
  finish(before: Finished, warn: (message: string) => void): Group;
}
