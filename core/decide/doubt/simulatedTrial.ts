import type { Criterion } from '../../domain/criterion.ts';
import { conditionKey } from '../../domain/factor.ts';
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
  /** What counts of all conditions; the mean where nothing else is said. */
  aggregation?: Criterion['aggregation'];
}

/** A criterion on which nothing is cut off at its worst or best. */
export const openCriterion = (id: string, rest: Partial<Criterion> = {}): Criterion => ({
  ...{ id, trialId: 't', name: id, kind: 'measured', measureId: 'noise.snrDb', weight: 1, best: 100, worst: 0, otherWorst: null, aggregation: 'mean', where: {} },
  ...{ worstWords: '', bestWords: '', dealbreaker: null, remark: '', position: 0 },
  ...rest,
});

/** Takes of several candidates that met the same moments, each take under a condition of its own. */
export function simulatedTrial(random: ReturnType<typeof randomSource>, { takes, candidates, criteria, ahead = 0, momentSpread = 4, aggregation = 'mean' }: TrialShape): DrawnFrom {
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
    criteria: Array.from({ length: criteria }, (_, at) => openCriterion(`k${at}`, { aggregation })),
    candidateIds: Array.from({ length: candidates }, (_, at) => `x${at}`),
    takeIds: Array.from({ length: takes }, (_, at) => `t${at}`),
    listeners: [],
    samples,
  };
}

/**
 * A third of a full design over three stations, three windscreens and three distances: each candidate by itself, at nine of the 27
 * conditions, so that hardly two share one. What stations, screens and distances do is far more than the spread of one value.
 */
export function reducedTrial(random: ReturnType<typeof randomSource>, { candidates, criteria, ahead = 0, aggregation = 'mean' }: Omit<TrialShape, 'takes'>): DrawnFrom {
  const places = Array.from({ length: 9 * candidates }, (_, take) => {
    const [candidate, station, screen] = [Math.floor(take / 9), Math.floor(take / 3) % 3, take % 3];
    return { candidate, take, levels: [station, screen, (candidate + station + screen) % 3] as const };
  });
  const samples = Array.from({ length: criteria }, () => {
    const parts = Array.from({ length: 3 }, () => Array.from({ length: 3 }, () => 4 * random.normal()));
    return places.map(({ candidate, take, levels }): DrawnSample => {
      const place = levels.reduce((sum: number, level, factor) => sum + (parts[factor]?.[level] as number), 0);
      const [station, windscreen, distance] = levels.map(String) as [string, string, string];
      const condition = conditionKey({ station, windscreen, distance, script: 's' });
      return { candidate, take, listener: null, condition, value: 50 + place + random.normal() + (candidate === 0 ? ahead : 0), weight: 1 };
    });
  });
  return {
    criteria: Array.from({ length: criteria }, (_, at) => openCriterion(`k${at}`, { aggregation })),
    candidateIds: Array.from({ length: candidates }, (_, at) => `x${at}`),
    takeIds: places.map(({ take }) => `t${take}`),
    listeners: [],
    samples,
  };
}
