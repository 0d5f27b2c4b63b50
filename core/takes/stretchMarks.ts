import type { Correction, MarkedEvent } from '../domain/correction.ts';
import type { Recording } from '../domain/recording.ts';

type Span = NonNullable<Recording['performance']>;

/** What somebody marked on a stretch of a file, in seconds from where the stretch begins. */
export type StretchMarks = Pick<Recording, 'corrections' | 'roomTone' | 'performance'>;

/** A stretch with what is marked on it. */
export type MarkedStretch = StretchMarks & Pick<Recording, 'startS'>;

/**
 * What was marked on the stretches of a channel, laid on a stretch that is cut otherwise: an event belongs where it begins; room tone, and what
 * is judged, where they lie wholly. Of two marks of what is judged neither is known to be that of both together.
 * @param from stretches as they were
 * @param startS where the new stretch begins in the file; null is the file's start
 * @param endS where it ends; null is the file's end
 */
export function marksOn(from: readonly MarkedStretch[], startS: number | null, endS: number | null): StretchMarks {
  const [fromS, toS] = [startS ?? 0, endS ?? Number.POSITIVE_INFINITY];
  const inside = (atS: number) => atS >= fromS && atS < toS;
  const corrections = from.flatMap((stretch) =>
    stretch.corrections.flatMap(({ id, was, now }): Correction[] => {
      const byS = (stretch.startS ?? 0) - fromS;
      const begins = (now ?? was)?.startS;
      return begins !== undefined && inside(begins + (stretch.startS ?? 0)) ? [{ id, was: movedEvent(was, byS), now: movedEvent(now, byS) }] : [];
    }),
  );
  const spansOf = (name: 'roomTone' | 'performance') =>
    from.flatMap((stretch): Span[] => {
      const span = stretch[name];
      const byS = stretch.startS ?? 0;
      return span && span[0] + byS >= fromS && span[1] + byS <= toS ? [[span[0] + byS - fromS, span[1] + byS - fromS]] : [];
    });
  const judged = spansOf('performance');
  return { corrections, roomTone: spansOf('roomTone')[0] ?? null, performance: judged.length === 1 ? (judged[0] as Span) : null };
}

const movedEvent = (event: MarkedEvent | null, byS: number): MarkedEvent | null => event && { ...event, startS: Math.max(0, event.startS + byS), endS: event.endS + byS };
