import { FEATURES } from '@marvet/core/measure/events/frameFeatures';
import { LIKELY_TARGETS, type LikelyTarget } from '@marvet/core/measure/events/standoutKinds';
import type { Forest } from '@marvet/core/measure/events/trees';
import { randomSource, seedOf } from '@marvet/core/simulate/random';
import { boost } from './boost.ts';
import type { TrainingTake } from './trainingTake.ts';

/** Moments at which something is not so, for each at which it is; the rest would tell nothing new. */
const NO_FOR_YES = 6;
const LEAST_NO = 60_000;
const MOST_ROWS = 160_000;

/** Grows the trees of one target from takes. */
export function grow({ target, takes }: { target: LikelyTarget; takes: TrainingTake[] }): Forest {
  const index = LIKELY_TARGETS.indexOf(target);
  const random = randomSource(seedOf('grow', target));
  const answerOf = (take: TrainingTake, frame: number) => take.answers[frame * LIKELY_TARGETS.length + index] as number;
  const counts = [0, 0, 0];
  for (const take of takes)
    for (let frame = 0; frame * LIKELY_TARGETS.length < take.answers.length; frame++) counts[answerOf(take, frame)] = (counts[answerOf(take, frame)] as number) + 1;
  const [no, yes] = counts as [number, number, number];
  const keepYes = Math.min(1, MOST_ROWS / 2 / yes);
  const keepNo = Math.min(1, Math.min(MOST_ROWS, Math.max(LEAST_NO, NO_FOR_YES * yes * keepYes)) / no);
  const chosen: [TrainingTake, number, number][] = [];
  for (const take of takes) {
    for (let frame = 0; frame * LIKELY_TARGETS.length < take.answers.length; frame++) {
      const answer = answerOf(take, frame);
      if (answer < 2 && random.uniform() < (answer === 1 ? keepYes : keepNo)) chosen.push([take, frame, answer]);
    }
  }
  const values = new Float32Array(chosen.length * FEATURES);
  const targets = new Uint8Array(chosen.length);
  const weights = new Float32Array(chosen.length);
  chosen.forEach(([take, frame, answer], row) => {
    values.set(take.values.subarray(frame * FEATURES, (frame + 1) * FEATURES), row * FEATURES);
    targets[row] = answer;
    // What was left out counts through what was kept, so that odds stay odds.
    weights[row] = answer === 1 ? 1 / keepYes : 1 / keepNo;
  });
  return boost({ width: FEATURES, values, targets, weights }, { trees: 60, depth: 4, rate: 0.15, share: 0.5, smoothing: 30, random });
}
