import { CONDITION_KINDS, type FactorKind, NOT_KNOWN } from '../../domain/factor.ts';
import { isLinkMeasure, MEASURE_IDS } from '../../domain/measureId.ts';
import { countingFor } from '../aggregate.ts';
import { isUnplanned, type Usable, usableRecordings, type VerdictInput } from '../usableRecordings.ts';

/** What values can hang on: the candidate, a factor of the plan, or who listened. */
export type TermKind = FactorKind | 'listener';

/** One value with all that it can hang on. */
export interface Observation {
  value: number;
  takeId: string;
  candidateId: string;
  /** Levels by term. */
  levels: Partial<Record<TermKind, string>>;
}

/** The values of one criterion. */
export interface Observed {
  criterionId: string;
  observations: Observation[];
  /** Values that were left out since part of their condition is not known. */
  leftOut: number;
}

/** Every value of the measured and listened criteria with its condition. Marks and ranges hang on no take, and are none. */
export function observationsOf(input: VerdictInput): Observed[] {
  const usable = usableRecordings(input, []);
  const byRecording = new Map(usable.map((each) => [each.recording.id, each]));
  return input.criteria.flatMap((criterion): Observed[] => {
    const counts = countingFor(criterion);
    const measureId = MEASURE_IDS.find((id) => id === criterion.measureId);
    if (criterion.kind === 'inspected' || (measureId && isLinkMeasure(measureId))) return [];
    const all =
      criterion.kind === 'listened'
        ? input.ratings.flatMap(({ recordingId, criterionId, points, listener }) => {
            const own = criterionId === criterion.id ? byRecording.get(recordingId) : undefined;
            return own ? [{ own, value: points, listener }] : [];
          })
        : usable.flatMap((own) => {
            const value = measureId && own.recording.figures?.[measureId];
            return value === undefined ? [] : [{ own, value, listener: undefined }];
          });
    const counted = all.filter(({ own }) => counts(own.condition));
    const known = counted.filter(({ own }) => !isUnplanned(own.condition));
    return [
      {
        criterionId: criterion.id,
        observations: known.map(({ own, value, listener }) => observed(own, value, listener)),
        leftOut: counted.length - known.length,
      },
    ];
  });
}

function observed({ take, setup, condition }: Usable, value: number, listener: string | undefined): Observation {
  const levels: Observation['levels'] = { candidate: setup.candidateId };
  for (const kind of CONDITION_KINDS) if (condition[kind] && condition[kind] !== NOT_KNOWN) levels[kind] = condition[kind];
  if (listener !== undefined) levels.listener = listener;
  return { value, takeId: take.id, candidateId: setup.candidateId, levels };
}
