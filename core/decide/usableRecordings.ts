import type { Criterion, Mark } from '../domain/criterion.ts';
import { type Condition, conditionKey, NOT_KNOWN } from '../domain/factor.ts';
import { grouped } from '../domain/grouped.ts';
import type { Figures } from '../domain/recording.ts';
import { candidatesOf, isSpoiled, setupCondition, slateLabel, type Take, type TakeSetup } from '../domain/take.ts';
import type { RangeRow } from '../radio/rangeWindows.ts';
import type { JudgedCandidate } from './verdict.ts';

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
  /** Of the listener, where steady ones of a round weigh more; 1 where it is left out. */
  weight?: number;
  /** Who gave it, by name, so that somebody who sits in two rounds is one. */
  listener?: string;
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
  kind: 'no audio' | 'passes' | 'twice' | 'listening' | 'not measured' | 'lossy' | 'not known' | 'reckoned' | 'unlike';
  text: string;
}

/** A recording that is judged, with where it belongs. */
export interface Usable {
  recording: VerdictRecording;
  take: Take;
  setup: TakeSetup;
  condition: Condition;
  /** Of the condition; worked out once, since every criterion asks for it. */
  key: string;
}

/** Recordings tied to a setup of a take that was not spoiled; of each setup of a slate one counts, unless all are wanted. */
export function usableRecordings({ takes, recordings, passes }: VerdictInput, notes: VerdictNote[]): Usable[] {
  const takeById = new Map(takes.filter((take) => !isSpoiled(take)).map((take) => [take.id, take]));
  const tied = recordings.flatMap((recording): Usable[] => {
    const take = takeById.get(recording.takeId ?? '');
    const setup = take?.setups.find((each) => each.id === recording.setupId);
    return take && setup ? [usableOf(recording, take, setup)] : [];
  });
  // A file that was cut short and the one that came in its place are one recording, not two.
  const once = [...grouped(tied, ({ setup }) => setup.id).values()].map((group) => {
    const best = group.reduce((kept, each) => (better(each.recording, kept.recording) ? each : kept));
    if (group.length > 1) {
      const others = group.filter((each) => each !== best).map(({ recording }) => recording.fileName);
      notes.push({ kind: 'twice', text: `Take ${slateLabel(best.take)} has one microphone twice: ${best.recording.fileName} counts, ${others.join(', ')} does not.` });
    }
    return best;
  });
  const bySlate = grouped(once, ({ take, setup, key }) => `${take.slate} ${setup.candidateId} ${key}`);
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

/** Whether it was recorded without a plan: part of its condition is not known. */
export const isUnplanned = (condition: Condition) => Object.values(condition).includes(NOT_KNOWN);

function usableOf(recording: VerdictRecording, take: Take, setup: TakeSetup): Usable {
  let place = placeOfSetup.get(setup);
  if (!place) {
    const condition = setupCondition(take, setup);
    // Nothing says that two takes without a plan were alike: what is compared of them is what was recorded at one moment.
    const alone = isUnplanned(condition) && candidatesOf(take).length > 1;
    place = { condition, key: alone ? `${conditionKey(condition)}|moment=${take.id}` : conditionKey(condition) };
    placeOfSetup.set(setup, place);
  }
  return { recording, take, setup, ...place };
}

/** Worked out once for each setup, for as long as whoever asks keeps its takes as they are. */
const placeOfSetup = new WeakMap<TakeSetup, Pick<Usable, 'condition' | 'key'>>();

const better = (a: VerdictRecording, b: VerdictRecording) => (a.cutShort === b.cutShort ? a.uploadedAtMs > b.uploadedAtMs : !a.cutShort);
