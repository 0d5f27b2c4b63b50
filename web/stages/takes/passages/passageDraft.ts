import type { Placings } from '@marvet/core/contract/places';
import type { RecordingRow } from '@marvet/core/contract/recordings';
import type { Span } from '@marvet/core/measure/report.types';
import { SHORTEST_PASSAGE_S, spansBetween } from '@marvet/core/takes/passages/passages';

/** How a file is to be cut: passages one after the other, each of a take or of none. */
export interface PassageDraft {
  /** Between passages, in the order of their time. */
  cutsS: readonly number[];
  /** One more than there are cuts. */
  takeIds: readonly (string | null)[];
}

/** The passages that a file has now; what of it lies in no take is a passage of none. */
export function draftOf(recordings: readonly Pick<RecordingRow, 'channels' | 'startS' | 'endS' | 'takeId'>[], lengthS: number): PassageDraft {
  const [first] = recordings;
  if (!first) return { cutsS: [], takeIds: [null] };
  const rows = recordings.filter(({ channels }) => String(channels) === String(first.channels)).sort((a, b) => (a.startS ?? 0) - (b.startS ?? 0));
  const cutsS: number[] = [];
  const takeIds: (string | null)[] = [];
  let reachedS = 0;
  const add = (takeId: string | null, toS: number) => {
    if (toS - reachedS < 1e-6) return;
    // Where something was switched its take goes on.
    if (takeIds.length > 0 && takeIds.at(-1) === takeId && takeId !== null) cutsS.pop();
    else takeIds.push(takeId);
    cutsS.push(toS);
    reachedS = toS;
  };
  for (const { startS, endS, takeId } of rows) {
    add(null, startS ?? 0);
    add(takeId, endS ?? lengthS);
  }
  add(null, lengthS);
  return { cutsS: cutsS.slice(0, -1), takeIds };
}

export const spansOf = ({ cutsS }: PassageDraft, lengthS: number): Span[] => [0, ...cutsS].map((startS, index) => [startS, cutsS[index] ?? lengthS]);

/**
 * Cuts once more. What comes before the cut stays of its take; what follows is of the take after it that stands nowhere yet, as takes
 * are recorded one after the other.
 * @param order takes as they are slated
 * @param takeId of what follows, where something says it
 */
export function cutAt(draft: PassageDraft, atS: number, lengthS: number, order: readonly string[], takeId?: string | undefined): PassageDraft {
  const index = draft.cutsS.filter((cut) => cut <= atS).length;
  const [fromS, toS] = spansOf(draft, lengthS)[index] as Span;
  if (atS - fromS < SHORTEST_PASSAGE_S || toS - atS < SHORTEST_PASSAGE_S) return draft;
  const before = draft.takeIds[index] ?? null;
  const free = (id: string) => !draft.takeIds.includes(id);
  const next = takeId !== undefined && free(takeId) ? takeId : before === null ? null : (order.slice(order.indexOf(before) + 1).find(free) ?? null);
  return { cutsS: draft.cutsS.toSpliced(index, 0, atS), takeIds: draft.takeIds.toSpliced(index + 1, 0, next) };
}

/** Cuts at all of several moments, and nowhere else: a passage keeps the take of what begins it. */
export function cutAtAll(draft: PassageDraft, moments: readonly { atS: number; takeId?: string | undefined }[], lengthS: number, order: readonly string[]): PassageDraft {
  const kept = new Set(
    spansBetween(
      moments.map(({ atS }) => atS),
      lengthS,
    ).map(([fromS]) => fromS),
  );
  const whole: PassageDraft = { cutsS: [], takeIds: [draft.takeIds[0] ?? null] };
  return moments.filter(({ atS }) => kept.has(atS)).reduce((cut, { atS, takeId }) => cutAt(cut, atS, lengthS, order, takeId), whole);
}

/** Joins a passage with the one after it. */
export function joined(draft: PassageDraft, index: number): PassageDraft {
  const takeId = draft.takeIds[index] ?? draft.takeIds[index + 1] ?? null;
  return { cutsS: draft.cutsS.toSpliced(index, 1), takeIds: draft.takeIds.toSpliced(index, 2, takeId) };
}

/** Moves a cut, no nearer to its neighbours than a word is long. */
export function moved(draft: PassageDraft, index: number, atS: number, lengthS: number): PassageDraft {
  const least = (draft.cutsS[index - 1] ?? 0) + SHORTEST_PASSAGE_S;
  const most = (draft.cutsS[index + 1] ?? lengthS) - SHORTEST_PASSAGE_S;
  return { ...draft, cutsS: draft.cutsS.with(index, Math.max(least, Math.min(most, atS))) };
}

/** Says of which take a passage is. */
export const of = (draft: PassageDraft, index: number, takeId: string | null): PassageDraft => ({ ...draft, takeIds: draft.takeIds.with(index, takeId) });

/** Takes in their order from the first passage that has one on. */
export function inOrder(draft: PassageDraft, order: readonly string[]): PassageDraft {
  const first = draft.takeIds.findIndex((takeId) => takeId !== null);
  const from = Math.max(first, 0);
  const start = first < 0 ? 0 : order.indexOf(draft.takeIds[first] as string);
  return { ...draft, takeIds: draft.takeIds.map((takeId, index) => (index < from ? takeId : (order[start + index - from] ?? null))) };
}

/** Takes that stand at more than one passage. */
export const takenTwice = ({ takeIds }: PassageDraft): Set<string> => new Set(takeIds.flatMap((id, index) => (id !== null && takeIds.indexOf(id) !== index ? [id] : [])));

/** The draft as it is sent. */
export function placingOf(draft: PassageDraft, fileId: string, lengthS: number, from: string | null): Placings['places'][number] {
  const cuts = spansOf(draft, lengthS).flatMap(([startS, endS], index) => {
    const takeId = draft.takeIds[index] ?? null;
    return takeId === null ? [] : [{ takeId, startS, endS, logStartS: null, cutBy: 'passage' as const }];
  });
  const takeId = cuts[0]?.takeId ?? null;
  const whole = draft.cutsS.length === 0;
  return { fileId, takeId, by: takeId === null ? null : 'hand', from, ...(whole || cuts.length === 0 ? {} : { cuts }) };
}
