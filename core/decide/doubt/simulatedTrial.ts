import type { Criterion } from '../../domain/criterion.ts';
import type { randomSource } from '../../simulate/random.ts';
import type { DrawnFrom, DrawnSample } from './samples.ts';

/** How a trial of known truth is made. */
export interface TrialShape {
  takes: number;
  candidates: number;
  criteria: number;
  /** How far the first candidate truly lies ahead of all others, in the spread of one value about its moment. */
  ahead?: number;
  /** How much moments differ, in the same spread. */
  momentSpread?: number;
}

/** A criterion on which nothing is cut off at its worst or best. */
export const openCriterion = (id: string, rest: Partial<Criterion> = {}): Criterion => ({
  ...{ id, trialId: 't', name: id, kind: 'measured', measureId: 'noise.snrDb', weight: 1, best: 100, worst: 0, otherWorst: null, aggregation: 'median', where: {} },
  ...{ worstWords: '', bestWords: '', dealbreaker: null, remark: '', position: 0 },
  ...rest,
});

/** Takes of several candidates that met the same moments, each take under a condition of its own. */
export function simulatedTrial(random: ReturnType<typeof randomSource>, { takes, candidates, criteria, ahead = 0, momentSpread = 4 }: TrialShape): DrawnFrom {
  const samples = Array.from({ length: criteria }, () =>
    Array.from({ length: takes }, (_, take) => {
      const moment = 50 + momentSpread * random.normal();
      return Array.from({ length: candidates }, (_, candidate): DrawnSample => {
        const value = moment + random.normal() + (candidate === 0 ? ahead : 0);
        return { candidate, take, listener: null, condition: `c${take}`, value, weight: 1 };
      });
    }).flat(),
  );
  return {
    criteria: Array.from({ length: criteria }, (_, at) => openCriterion(`k${at}`)),
    candidateIds: Array.from({ length: candidates }, (_, at) => `x${at}`),
    takeIds: Array.from({ length: takes }, (_, at) => `t${at}`),
    listeners: [],
    samples,
  };
}
