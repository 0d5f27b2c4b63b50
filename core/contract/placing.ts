import type { ForeseenRow, ForeseenSum } from '../place/foreseen.ts';

/** What was foreseen of a trial, beside what was found. */
export interface ForeseenAndFound {
  rows: ForeseenRow[];
  sums: ForeseenSum[];
  /** Recordings that were measured, and of which nothing could be foreseen for want of spot, distance or place. */
  unforeseen: number;
}
