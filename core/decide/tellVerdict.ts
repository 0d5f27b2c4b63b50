import type { Criterion, Mark } from '../domain/criterion.ts';
import { type Condition, conditionKey } from '../domain/factor.ts';
import type { Figures } from '../domain/recording.ts';
import { isSpoiled, setupCondition, slateLabel, type Take, type TakeSetup } from '../domain/take.ts';
import { byCondition, counts, type Sample } from './aggregate.ts';
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
  /** Of a slate that was done again, the last pass counts, or all; null where nobody said yet. */
  passes: 'last' | 'all' | null;
}

/** Something to know before the verdict is believed. */
export interface VerdictNote {
  kind: 'no audio' | 'passes' | 'twice' | 'listening' | 'not measured';
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
  const values: Judged = new Map(
    input.criteria.map((criterion) => {
      if (criterion.kind === 'measured') return [criterion.id, byCondition(measuredSamples(criterion, usable))];
      if (criterion.kind === 'listened') return [criterion.id, byCondition(listenedSamples(criterion, usable, input.ratings))];
      const given = input.marks.filter((mark) => mark.criterionId === criterion.id && mark.points !== null);
      return [criterion.id, new Map(given.map((mark) => [mark.chainId, new Map([[ANYWHERE, mark.points as number]])]))];
    }),
  );
  notes.push(...withoutAudio(input), ...listeningNotes(input, usable), ...unmeasured(usable));
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
    bySetup.set(setup.id, [...(bySetup.get(setup.id) ?? []), usableOf(recording, take, setup)]);
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
  for (const each of once) {
    const key = `${each.take.slate} ${each.setup.candidateId} ${each.key}`;
    bySlate.set(key, [...(bySlate.get(key) ?? []), each]);
  }
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

function usableOf(recording: VerdictRecording, take: Take, setup: TakeSetup): Usable {
  const condition = setupCondition(take, setup);
  return { recording, take, setup, condition, key: conditionKey(condition) };
}

const better = (a: VerdictRecording, b: VerdictRecording) => (a.cutShort === b.cutShort ? a.uploadedAtMs > b.uploadedAtMs : !a.cutShort);

function measuredSamples(criterion: Criterion, usable: readonly Usable[]): Sample[] {
  return usable.flatMap(({ recording, setup, condition, key }) => {
    const value = criterion.measureId ? recording.figures?.[criterion.measureId] : undefined;
    return value === undefined || !counts(criterion, condition) ? [] : [{ candidateId: setup.candidateId, conditionKey: key, value }];
  });
}

function listenedSamples(criterion: Criterion, usable: readonly Usable[], ratings: readonly HeardRating[]): Sample[] {
  const byId = new Map(usable.map((each) => [each.recording.id, each]));
  return ratings.flatMap((rating) => {
    const heard = rating.criterionId === criterion.id ? byId.get(rating.recordingId) : undefined;
    return heard && counts(criterion, heard.condition) ? [{ candidateId: heard.setup.candidateId, conditionKey: heard.key, value: rating.points }] : [];
  });
}

/** Takes that were done and of which a candidate has no audio. */
function withoutAudio({ takes, recordings }: VerdictInput): VerdictNote[] {
  const heard = new Set(recordings.map((recording) => recording.setupId));
  const silent = takes.filter((take) => take.status === 'done' && !isSpoiled(take) && take.setups.some((setup) => !heard.has(setup.id)));
  if (silent.length === 0) return [];
  const all = silent.filter((take) => take.setups.every((setup) => !heard.has(setup.id)));
  const part = silent.filter((take) => !all.includes(take));
  const names = (list: readonly Take[]) => `${list.slice(0, 6).map(slateLabel).join(', ')}${list.length > 6 ? ` and ${list.length - 6} more` : ''}`;
  return [
    ...(all.length > 0 ? [{ kind: 'no audio' as const, text: `Done but without any audio: take ${names(all)}.` }] : []),
    ...(part.length > 0 ? [{ kind: 'no audio' as const, text: `Done but without the audio of some candidates: take ${names(part)}.` }] : []),
  ];
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
