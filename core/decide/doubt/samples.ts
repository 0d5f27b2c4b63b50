import type { Criterion } from '../../domain/criterion.ts';
import { isLinkMeasure, MEASURE_IDS } from '../../domain/measureId.ts';
import { rangeValueM } from '../../radio/rangeModel.ts';
import { countingFor } from '../aggregate.ts';
import { type Usable, usableRecordings, type VerdictInput } from '../usableRecordings.ts';
import { ANYWHERE } from '../verdict.ts';

/** One value of one candidate, with the take and the listener that it comes from. */
export interface DrawnSample {
  /** Places in the lists of the whole; null for what was not recorded, or not heard. */
  candidate: number;
  take: number | null;
  listener: number | null;
  /** Counted within its criterion. */
  condition: string;
  value: number;
  weight: number;
}

/** All that a verdict rests on, by where it comes from, so that it can be drawn anew. */
export interface DrawnFrom {
  criteria: Criterion[];
  candidateIds: string[];
  takeIds: string[];
  listeners: string[];
  /** By criterion, in their order. */
  samples: DrawnSample[][];
}

/** The values of a verdict with the take and the listener of each. */
export function samplesOf(input: VerdictInput): DrawnFrom {
  const usable = usableRecordings(input, []);
  const takeIds = [...new Set(usable.map(({ take }) => take.id))];
  const listeners = [...new Set(input.ratings.flatMap(({ listener }) => listener ?? []))];
  const [takeAt, listenerAt, candidateAt] = [placesOf(takeIds), placesOf(listeners), placesOf(input.candidates.map(({ id }) => id))];
  const byRecording = new Map(usable.map((each) => [each.recording.id, each]));
  const heard = (candidateId: string, from: Omit<DrawnSample, 'candidate' | 'weight'>, weight = 1): DrawnSample[] => {
    const candidate = candidateAt.get(candidateId);
    return candidate === undefined ? [] : [{ candidate, weight, ...from }];
  };
  const recorded = (criterion: Criterion, figureOf: (each: Usable) => number | undefined) => {
    const counts = countingFor(criterion);
    return usable.flatMap((each) => {
      const value = counts(each.condition) ? figureOf(each) : undefined;
      return value === undefined ? [] : heard(each.setup.candidateId, { take: takeAt.get(each.take.id) ?? null, listener: null, condition: each.key, value });
    });
  };
  const samples = input.criteria.map((criterion): DrawnSample[] => {
    if (criterion.kind === 'inspected')
      return input.marks.flatMap(({ criterionId, chainId, points }) =>
        criterionId === criterion.id && points !== null ? heard(chainId, { take: null, listener: null, condition: ANYWHERE, value: points }) : [],
      );
    if (criterion.kind === 'listened') {
      const counts = countingFor(criterion);
      return input.ratings.flatMap(({ recordingId, criterionId, points, listener, weight }) => {
        const own = criterionId === criterion.id ? byRecording.get(recordingId) : undefined;
        if (!own || !counts(own.condition)) return [];
        const from = { take: takeAt.get(own.take.id) ?? null, listener: listenerAt.get(listener ?? '') ?? null, condition: own.key, value: points };
        return heard(own.setup.candidateId, from, weight);
      });
    }
    const measureId = MEASURE_IDS.find((id) => id === criterion.measureId);
    if (!measureId) return [];
    if (!isLinkMeasure(measureId)) return recorded(criterion, ({ recording }) => recording.figures?.[measureId]);
    const side = measureId === 'range.facingM' ? 'facing' : 'turned';
    const stations = criterion.where.station ?? [];
    return (input.ranges ?? []).flatMap(({ candidateId, stationId, side: own, range }) => {
      const value = rangeValueM(range);
      if (own !== side || value === null || (stations.length > 0 && !stations.includes(stationId))) return [];
      return heard(candidateId, { take: null, listener: null, condition: stationId, value });
    });
  });
  return { criteria: [...input.criteria], candidateIds: input.candidates.map(({ id }) => id), takeIds, listeners, samples };
}

const placesOf = (ids: readonly string[]) => new Map(ids.map((id, at) => [id, at]));
