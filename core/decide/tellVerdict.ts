import { median } from 'simple-statistics';
import type { Criterion, Mark } from '../domain/criterion.ts';
import { type Condition, conditionKey } from '../domain/factor.ts';
import { isLinkMeasure, type LinkMeasureId, MEASURE_IDS } from '../domain/measureId.ts';
import type { Figures } from '../domain/recording.ts';
import { isSpoiled, setupCondition, slateLabel, type Take, type TakeSetup } from '../domain/take.ts';
import { rangeValueM } from '../radio/rangeModel.ts';
import type { RangeRow } from '../radio/rangeWindows.ts';
import { type ByCondition, byCondition, countingFor, type Sample } from './aggregate.ts';
import { ANYWHERE, type Judged, type JudgedCandidate, judge, type VerdictRow } from './verdict.ts';

/** A recording as the verdict looks at it. */
export interface VerdictRecording {
  id: string;
  takeId: string | null;
  setupId: string | null;
  fileName: string;
  uploadedAtMs: number;
  /** The file ends before its header says. */
  cutShort: boolean;
  /** The codec of its file, where that left something out. */
  lossyCodec: string | null;
  measured: boolean;
  figures: Figures | null;
}

/** A score that a listener who is done gave to a recording. */
export interface HeardRating {
  recordingId: string;
  criterionId: string;
  points: number;
}

export interface VerdictInput {
  criteria: readonly Criterion[];
  candidates: readonly JudgedCandidate[];
  takes: readonly Take[];
  recordings: readonly VerdictRecording[];
  ratings: readonly HeardRating[];
  marks: readonly Mark[];
  /** How far links held; asked for only where a criterion looks at it. */
  ranges?: readonly RangeRow[];
  /** Of a slate that was done again, the last pass counts, or all; null where nobody said yet. */
  passes: 'last' | 'all' | null;
}

/** Something to know before the verdict is believed. */
export interface VerdictNote {
  kind: 'no audio' | 'passes' | 'twice' | 'listening' | 'not measured' | 'lossy';
  text: string;
}

/** A verdict: its criteria, every candidate on them, and what to know before it is believed. */
export interface Verdict {
  criteria: Criterion[];
  rows: VerdictRow[];
  notes: VerdictNote[];
}

interface Usable {
  recording: VerdictRecording;
  take: Take;
  setup: TakeSetup;
  condition: Condition;
  /** Of the condition; worked out once, since every criterion asks for it. */
  key: string;
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
      if (criterion.kind === 'listened') return [criterion.id, byCondition(listenedSamples(criterion, usable, input.ratings))];
      const given = input.marks.filter((mark) => mark.criterionId === criterion.id && mark.points !== null);
      return [criterion.id, new Map(given.map((mark) => [mark.chainId, new Map([[ANYWHERE, mark.points as number]])]))];
    }),
  );
  notes.push(...withoutAudio(input), ...listeningNotes(input, usable), ...unmeasured(usable), ...lossyNotes(input, usable));
  return { criteria: [...input.criteria], rows: judge(input.criteria, input.candidates, values), notes };
}

/** Recordings tied to a setup of a take that was not spoiled; of each setup of a slate one counts, unless all are wanted. */
function usableRecordings({ takes, recordings, passes }: VerdictInput, notes: VerdictNote[]): Usable[] {
  const takeById = new Map(takes.filter((take) => !isSpoiled(take)).map((take) => [take.id, take]));
  const bySetup = new Map<string, Usable[]>();
  for (const recording of recordings) {
    const take = takeById.get(recording.takeId ?? '');
    const setup = take?.setups.find((each) => each.id === recording.setupId);
    if (!take || !setup) continue;
    gather(bySetup, setup.id, usableOf(recording, take, setup));
  }
  // A file that was cut short and the one that came in its place are one recording, not two.
  const once = [...bySetup.values()].map((group) => {
    const best = group.reduce((kept, each) => (better(each.recording, kept.recording) ? each : kept));
    if (group.length > 1) {
      const others = group.filter((each) => each !== best).map(({ recording }) => recording.fileName);
      notes.push({ kind: 'twice', text: `Take ${slateLabel(best.take)} has one microphone twice: ${best.recording.fileName} counts, ${others.join(', ')} does not.` });
    }
    return best;
  });
  const bySlate = new Map<string, Usable[]>();
  for (const each of once) gather(bySlate, `${each.take.slate} ${each.setup.candidateId} ${each.key}`, each);
  const again = new Set<string>();
  const chosen = [...bySlate.values()].flatMap((group) => {
    if (group.length === 1 || passes === 'all') return group;
    const last = group.reduce((kept, each) => (each.take.pass > kept.take.pass ? each : kept));
    again.add(`${group.map(({ take }) => slateLabel(take)).join(' and ')}: ${slateLabel(last.take)} counts`);
    return [last];
  });
  if (again.size > 0 && passes === null) notes.push({ kind: 'passes', text: `Done again without the first being marked spoiled: ${[...again].join('; ')}.` });
  return chosen;
}

function gather<Value>(into: Map<string, Value[]>, key: string, value: Value): void {
  const group = into.get(key);
  if (group) group.push(value);
  else into.set(key, [value]);
}

function usableOf(recording: VerdictRecording, take: Take, setup: TakeSetup): Usable {
  let place = placeOfSetup.get(setup);
  if (!place) {
    const condition = setupCondition(take, setup);
    place = { condition, key: conditionKey(condition) };
    placeOfSetup.set(setup, place);
  }
  return { recording, take, setup, ...place };
}

/** Worked out once for each setup, for as long as whoever asks keeps its takes as they are. */
const placeOfSetup = new WeakMap<TakeSetup, Pick<Usable, 'condition' | 'key'>>();

const better = (a: VerdictRecording, b: VerdictRecording) => (a.cutShort === b.cutShort ? a.uploadedAtMs > b.uploadedAtMs : !a.cutShort);

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

/** What a criterion measures of each candidate under each condition; of repeats the middle one counts, once. */
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
    byKey.set(key, median(values));
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
    return heard && counts(heard.condition) ? [{ candidateId: heard.setup.candidateId, conditionKey: heard.key, value: rating.points }] : [];
  });
}

/** Takes that were done and of which a candidate has no audio. */
function withoutAudio({ takes, recordings }: VerdictInput): VerdictNote[] {
  const heard = new Set(recordings.map((recording) => recording.setupId));
  // A walk is judged by what was pressed: it needs no audio.
  const silent = takes.filter((take) => take.status === 'done' && !isSpoiled(take) && take.walk.length === 0 && take.setups.some((setup) => !heard.has(setup.id)));
  if (silent.length === 0) return [];
  const all = silent.filter((take) => take.setups.every((setup) => !heard.has(setup.id)));
  const part = silent.filter((take) => !all.includes(take));
  const names = (list: readonly Take[]) => `${list.slice(0, 6).map(slateLabel).join(', ')}${list.length > 6 ? ` and ${list.length - 6} more` : ''}`;
  return [
    ...(all.length > 0 ? [{ kind: 'no audio' as const, text: `Done but without any audio: take ${names(all)}.` }] : []),
    ...(part.length > 0 ? [{ kind: 'no audio' as const, text: `Done but without the audio of some candidates: take ${names(part)}.` }] : []),
  ];
}

/** Whose recordings come from files that left something out, and how many of them. */
function lossyNotes({ candidates }: VerdictInput, usable: readonly Usable[]): VerdictNote[] {
  const told = candidates.flatMap(({ id, name }) => {
    const own = usable.filter(({ setup }) => setup.candidateId === id);
    const codecs = own.flatMap(({ recording: { lossyCodec } }) => lossyCodec ?? []);
    return codecs.length === 0 ? [] : [`${name} ${codecs.length} of ${own.length} (${[...new Set(codecs)].join(', ')})`];
  });
  if (told.length === 0) return [];
  return [{ kind: 'lossy', text: `From lossy files: ${told.join('; ')}. Their noise, air and small differences say as much of the codec as of the gear.` }];
}

/** How much of what was recorded anybody listened to. */
function listeningNotes({ criteria, ratings }: VerdictInput, usable: readonly Usable[]): VerdictNote[] {
  if (!criteria.some((criterion) => criterion.kind === 'listened')) return [];
  const heard = new Set(ratings.map((rating) => rating.recordingId));
  const all = new Set(usable.map(({ key }) => key));
  const listened = new Set(usable.filter(({ recording }) => heard.has(recording.id)).map(({ key }) => key));
  if (listened.size === all.size || listened.size === 0) return [];
  return [{ kind: 'listening', text: `Listening covered ${listened.size} of ${all.size} conditions that were recorded.` }];
}

function unmeasured(usable: readonly Usable[]): VerdictNote[] {
  const left = usable.filter(({ recording }) => !recording.measured).length;
  return left === 0 ? [] : [{ kind: 'not measured', text: `${left} ${left === 1 ? 'recording has' : 'recordings have'} no figures yet.` }];
}
