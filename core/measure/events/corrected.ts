import type { Correction, MarkedEvent } from '../../domain/correction.ts';
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

/** A method that measures anew puts edges a little elsewhere; a correction still means the same event. */
function isSame(event: AudioEvent, { kind, startS, endS }: MarkedEvent): boolean {
  if (event.kind !== kind) return false;
  const shared = Math.min(event.endS, endS) - Math.max(event.startS, startS);
  const shorter = Math.min(event.endS - event.startS, endS - startS);
  return shared >= SHARED * shorter - 1e-9 || (shorter < NEAR_S && shared > -NEAR_S);
}
