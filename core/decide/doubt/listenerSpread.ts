import { leastSquares } from '../../statistics/leastSquares.ts';
import type { DrawnSample } from './samples.ts';

/** How far the scores of a candidate lie from what the listeners together say of it. */
export interface ListenerSpread {
  /** Standard error of each candidate's value; 0 where it has none. */
  errors: Float64Array;
  /** Degrees of freedom of what they are estimated from, over all candidates together. */
  df: number;
}

/**
 * The error of scores of one take: what is left when each listener's own strictness and each candidate's mean are taken out is what
 * listeners disagree by, and it is estimated over all candidates together, since two listeners alone say too little of one.
 * @returns null where nothing is left to tell it from
 */
export function listenerSpread(samples: readonly DrawnSample[], candidates: number, listeners: number): ListenerSpread | null {
  const heard = samples.filter(({ listener }) => listener !== null);
  const columnFor = (is: (sample: DrawnSample) => boolean) => Float64Array.from(heard, (sample) => Number(is(sample)));
  const columns = [
    ...Array.from({ length: candidates }, (_, candidate) => columnFor((sample) => sample.candidate === candidate)),
    ...Array.from({ length: listeners }, (_, listener) => columnFor((sample) => sample.listener === listener)),
  ].filter((column) => column.some((value) => value !== 0));
  const fitted = leastSquares(
    columns,
    Float64Array.from(heard, ({ value }) => value),
  );
  const df = fitted ? heard.length - fitted.used.length : 0;
  if (!fitted || df < 1) return null;
  const spread = Math.sqrt(fitted.residualSquares / df);
  return {
    errors: Float64Array.from({ length: candidates }, (_, candidate) => {
      const own = heard.filter((sample) => sample.candidate === candidate).length;
      return own === 0 ? 0 : spread / Math.sqrt(own);
    }),
    df,
  };
}
