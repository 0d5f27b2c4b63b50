import { type Correction, type MarkedEvent, sameEvent } from '../../domain/correction.ts';
import type { Heard } from '../chapter.types.ts';
import type { AudioEvent } from '../report.types.ts';
import { markedSeverityDb } from './severity.ts';

/** What was found and what somebody marked are one when they share this part of the shorter, or lie this near. */
const SHARED = 0.5;
const NEAR_S = 0.02;

/** Found events without those that somebody said are none, or are something else, or lie elsewhere. */
export function withoutCorrected(found: readonly AudioEvent[], corrections: readonly Correction[]): AudioEvent[] {
  const known = corrections.flatMap(({ was, now }) => [was, now].filter((event) => event !== null));
  return found.filter((event) => !known.some((other) => isSame(event, other)));
}

/** Events as somebody marked them, those whose middle lies in the chapter. */
export function markedEvents(heard: Heard, corrections: readonly Correction[]): AudioEvent[] {
  return corrections.flatMap(({ id, now }): AudioEvent[] => {
    const middleS = now ? (now.startS + now.endS) / 2 : -1;
    if (!now || middleS < heard.startS || middleS >= heard.endS) return [];
    return [{ ...now, severityDb: markedSeverityDb(heard, now.kind, now.startS, now.endS), correctionId: id }];
  });
}

/** An event as a page shows it; `pending` until it was measured as it is marked now. */
export type ShownEvent = AudioEvent & { pending?: true };

/** Events of a report with corrections that were made since it was measured. */
export function shownEvents(report: readonly AudioEvent[], corrections: readonly Correction[]): ShownEvent[] {
  const measured = report.filter(({ correctionId }) => correctionId !== undefined);
  const marked = corrections.flatMap(({ id, now }): ShownEvent[] => {
    if (!now) return [];
    const known = measured.find((event) => event.correctionId === id && sameEvent(event, now));
    return [known ?? { ...now, severityDb: 0, correctionId: id, pending: true }];
  });
  const found = withoutCorrected(
    report.filter(({ correctionId }) => correctionId === undefined),
    corrections,
  );
  return [...found, ...marked].sort((a, b) => a.startS - b.startS);
}

/** What to send so that an event becomes another, or none (`now` null); `id` is for one that was not corrected before. */
export function correctionOf(
  event: AudioEvent | null,
  now: MarkedEvent | null,
  corrections: readonly Correction[],
  id: string,
): { correction: Correction; seen: Correction | null } {
  const seen = corrections.find((each) => each.id === event?.correctionId) ?? null;
  if (seen) return { correction: { ...seen, now }, seen };
  return { correction: { id, was: event ? { kind: event.kind, startS: event.startS, endS: event.endS } : null, now }, seen: null };
}

/** A method that measures anew puts edges a little elsewhere; a correction still means the same event. */
function isSame(event: AudioEvent, { kind, startS, endS }: MarkedEvent): boolean {
  if (event.kind !== kind) return false;
  const shared = Math.min(event.endS, endS) - Math.max(event.startS, startS);
  const shorter = Math.min(event.endS - event.startS, endS - startS);
  return shared >= SHARED * shorter - 1e-9 || (shorter < NEAR_S && shared > -NEAR_S);
}
