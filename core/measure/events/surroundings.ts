import type { Span } from '../report.types.ts';
import { insideSpans } from '../spans.ts';
import { quantile } from '../tracks/frames.ts';

/** Surroundings reach so far to either side. */
const AROUND_S = 5;
/** What the quiet of them seldom passes. */
const USUAL_SHARE = 0.85;
/** With less quiet around than this nobody knows what is usual. */
const LEAST_AROUND_S = 0.5;

/**
 * What is usual between words around a moment: beats of music and steps of passers-by are the place's own, and
 * what does not come over them does not stand out.
 */
export class Surroundings {
  private readonly still: Float64Array;

  /**
   * @param powers of frames of `stepS`
   * @param timesS middles of the frames
   */
  constructor(
    private readonly powers: Float64Array,
    private readonly timesS: Float64Array,
    private readonly stepS: number,
    quiet: readonly Span[],
  ) {
    this.still = insideSpans(timesS, quiet, 0);
  }

  /** By how many decibels the loudest of a stretch passes what is usual around it; null where that is not known. */
  overUsualDb(startS: number, endS: number): number | null {
    const { powers, timesS, stepS, still } = this;
    const frame = (timeS: number) => Math.min(powers.length, Math.max(0, Math.round((timeS - (timesS[0] ?? 0)) / stepS)));
    const [from, to] = [frame(startS), Math.max(frame(startS) + 1, frame(endS) + 1)];
    const [first, end] = [frame(startS - AROUND_S), frame(endS + AROUND_S)];
    const around: number[] = [];
    for (let index = first; index < end; index++) if (still[index] && (index < from || index >= to)) around.push(powers[index] as number);
    if (around.length * stepS < LEAST_AROUND_S) return null;
    let most = 0;
    for (let index = Math.max(0, from - 1); index < Math.min(powers.length, to); index++) most = Math.max(most, powers[index] as number);
    return 10 * Math.log10(Math.max(most, 1e-15) / Math.max(quantile(Float64Array.from(around).sort(), USUAL_SHARE), 1e-15));
  }
}
