import type { MessagePort } from 'node:worker_threads';
import type { ClipSource } from '@marvet/core/listen/blindClip';
import type { MeasureOptions } from '@marvet/core/measure/report.types';

/** Work for a worker thread. */
export interface MeasureTask {
  kind: 'measure';
  path: string;
  options: MeasureOptions;
  /** Gets the share done, 0 to 1, a few times a second. */
  progress: MessagePort;
}

/** Two recordings compared, aligned first. */
export interface PairTask {
  kind: 'pair';
  channel: { path: string; channel: number };
  reference: { path: string; channel: number };
}

export interface ClipsTask {
  kind: 'clips';
  sources: (Omit<ClipSource, 'samples' | 'sampleRateHz'> & { path: string; channel: number })[];
  sameClock: boolean;
}
