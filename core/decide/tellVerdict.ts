import { mean, median } from 'simple-statistics';
import type { Criterion } from '../domain/criterion.ts';
import { type Condition, conditionKey } from '../domain/factor.ts';
import { isLinkMeasure, type LinkMeasureId, MEASURE_IDS } from '../domain/measureId.ts';
import type { Figures } from '../domain/recording.ts';
import { rangeValueM } from '../radio/rangeModel.ts';
import type { RangeRow } from '../radio/rangeWindows.ts';
import { type ByCondition, byCondition, countingFor, type Sample } from './aggregate.ts';
import { likeNotes } from './like/likeNotes.ts';
import { type HeardRating, type Usable, usableRecordings, type VerdictInput, type VerdictNote } from './usableRecordings.ts';
import { ANYWHERE, type Judged, judge, type VerdictRow } from './verdict.ts';
import { listeningNotes, lossyNotes, unmeasured, unplannedNotes, withoutAudio } from './verdictNotes.ts';

/** A verdict: its criteria, every candidate on them, and what to know before it is believed. */
export interface Verdict {
  criteria: Criterion[];
  rows: VerdictRow[];
  notes: VerdictNote[];
}

/** The verdict of a trial from its reports, finished listeners and marks. */
export function tellVerdict(input: VerdictInput): Verdict {
  const notes: VerdictNote[] = [];
  const usable = usableRecordings(input, notes);
  const cells = cellsOf(usable);
  const values: Judged = new Map(
    input.criteria.map((criterion) => {
      if (criterion.kind === 'measured' && criterion.measureId && isLinkMeasure(criterion.measureId))
        return [criterion.id, linkValues(criterion, criterion.measureId, input.ranges ?? [])];
      if (criterion.kind === 'measured') return [criterion.id, measuredValues(criterion, cells)];
      if (criterion.kind === 'listened') return [criterion.id, byCondition(listenedSamples(criterion, usable, input.ratings), criterion)];
      const given = input.marks.filter((mark) => mark.criterionId === criterion.id && mark.points !== null);
      return [criterion.id, new Map(given.map((mark) => [mark.chainId, new Map([[ANYWHERE, mark.points as number]])]))];
    }),
  );
  notes.push(...withoutAudio(input), ...listeningNotes(input, usable), ...unmeasured(usable), ...lossyNotes(input, usable), ...unplannedNotes(usable));
  const rows = judge(input.criteria, input.candidates, values);
  notes.push(...likeNotes(input.criteria, rows));
  return { criteria: [...input.criteria], rows, notes };
}

/** One candidate under one condition, and all recordings of that. */
interface Cell {
  candidateId: string;
  key: string;
  condition: Condition;
  figures: Figures[];
}

/** Recordings by candidate and condition, once for all criteria. */
function cellsOf(usable: readonly Usable[]): Cell[] {
  const byCandidate = new Map<string, Map<string, Cell>>();
  for (const { recording, setup, condition, key } of usable) {
    const own = byCandidate.get(setup.candidateId) ?? new Map<string, Cell>();
    byCandidate.set(setup.candidateId, own);
    const cell = own.get(key) ?? { candidateId: setup.candidateId, key, condition, figures: [] };
    own.set(key, cell);
    if (recording.figures) cell.figures.push(recording.figures);
  }
  return [...byCandidate.values()].flatMap((own) => [...own.values()]);
}

/** What a criterion measures of each candidate under each condition; repeats count once. */
function measuredValues(criterion: Criterion, cells: readonly Cell[]): Map<string, ByCondition> {
  // The name as the code has it: a text that was read from somewhere is looked up letter by letter, thousands of times.
  const measureId = MEASURE_IDS.find((id) => id === criterion.measureId);
  const result = new Map<string, ByCondition>();
  if (!measureId) return result;
  const counts = countingFor(criterion);
  for (const { candidateId, key, condition, figures } of cells) {
    if (!counts(condition)) continue;
    const values: number[] = [];
    for (const own of figures) {
      const value = own[measureId];
      if (value !== undefined) values.push(value);
    }
    if (values.length === 0) continue;
    const byKey = result.get(candidateId) ?? new Map<string, number>();
    result.set(candidateId, byKey);
    byKey.set(key, criterion.aggregation === 'mean' ? mean(values) : median(values));
  }
  return result;
}

/** How far links held, by candidate and station. A criterion that names stations looks only at those. */
function linkValues(criterion: Criterion, measureId: LinkMeasureId, ranges: readonly RangeRow[]): Map<string, ByCondition> {
  const side = measureId === 'range.facingM' ? 'facing' : 'turned';
  const stations = criterion.where.station ?? [];
  const result = new Map<string, ByCondition>();
  for (const { candidateId, stationId, side: own, range } of ranges) {
    const valueM = rangeValueM(range);
    if (own !== side || valueM === null || (stations.length > 0 && !stations.includes(stationId))) continue;
    const byKey = result.get(candidateId) ?? new Map<string, number>();
    result.set(candidateId, byKey.set(conditionKey({ station: stationId, script: '*' }), valueM));
  }
  return result;
}

function listenedSamples(criterion: Criterion, usable: readonly Usable[], ratings: readonly HeardRating[]): Sample[] {
  if (ratings.length === 0) return [];
  const byId = new Map(usable.map((each) => [each.recording.id, each]));
  const counts = countingFor(criterion);
  return ratings.flatMap((rating) => {
    const heard = rating.criterionId === criterion.id ? byId.get(rating.recordingId) : undefined;
    return heard && counts(heard.condition)
      ? [{ candidateId: heard.setup.candidateId, conditionKey: heard.key, value: rating.points, ...(rating.weight === undefined ? {} : { weight: rating.weight }) }]
      : [];
  });
}
