import numbers from './forests.json' with { type: 'json' };
import { FEATURES, type FrameFeatures, OVER_QUIET } from './frameFeatures.ts';
import { LIKELY_TARGETS, type LikelyTarget } from './standoutKinds.ts';
import { type Forest, Trees } from './trees.ts';

/** A band stands out when it is this far over what a tenth of its frames stay under. */
const OVER_QUIET_DB = 5;

const forests = numbers as Record<LikelyTarget, Forest>;
const trees = LIKELY_TARGETS.map((target) => [target, new Trees(forests[target], FEATURES)] as const);

/** For every frame how likely each of them is, 0 to 1. Several may be so at once. */
export type Likely = Record<LikelyTarget, Float64Array>;

/** What the moments of a chapter are likely to be. */
export interface LikelyMoments {
  timesS: Float64Array;
  hopS: number;
  likely: Likely;
}

/**
 * Asks the forests that were grown from recorded talkers and things (`npm run fit-events`), and
 * smooths their answers over three frames.
 */
export function likely({ values, timesS }: FrameFeatures): Likely {
  // Where no band is over its quiet there is nothing to ask about.
  const standsOut = Uint8Array.from(timesS, (_, frame) => {
    for (let column = frame * FEATURES + OVER_QUIET[0]; column < frame * FEATURES + OVER_QUIET[1]; column++) if ((values[column] as number) > OVER_QUIET_DB) return 1;
    return 0;
  });
  return Object.fromEntries(
    trees.map(([target, forest]) => {
      const raw = new Float64Array(timesS.length);
      for (let frame = 0; frame < raw.length; frame++) if (standsOut[frame]) raw[frame] = forest.probability(values, frame * FEATURES);
      return [target, raw.map((value, frame) => ((raw[frame - 1] ?? value) + 2 * value + (raw[frame + 1] ?? value)) / 4)];
    }),
  ) as Likely;
}
