import type { Capture } from '../domain/capture.ts';
import type { HeardWhileGrowing } from '../measure/measureGrowing.ts';

/** A take that is being recorded straight in, or was, as far as it is on the disk. */
export interface CaptureState extends Capture {
  /** Whole pieces that are there: the next one has this number. */
  pieces: number;
  lengthS: number;
}

/** What was heard while a take is recorded. */
export interface CaptureHeard {
  captureId: string;
  takeId: string;
  heard: HeardWhileGrowing[];
}
