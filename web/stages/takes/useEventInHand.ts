import type { MarkedEvent } from '@marvet/core/domain/correction';
import type { ShownEvent } from '@marvet/core/measure/events/corrected';
import type { AudioEvent, Span } from '@marvet/core/measure/report.types';
import { useState } from 'react';

/** The event that is looked at: one of those that are there, or one that is being marked. */
export interface EventInHand {
  event: ShownEvent | null;
  draft: boolean;
  choose(event: AudioEvent): void;
  /** Goes on with an event under the correction that it got. */
  follow(correctionId: string): void;
  /** Begins to mark one, or changes the one that is being marked. */
  mark(event: MarkedEvent): void;
  putDown(): void;
}

const keyOf = (event: AudioEvent) => event.correctionId ?? `${event.kind} ${event.startS}`;

export function useEventInHand(events: readonly ShownEvent[]): EventInHand {
  const [key, setKey] = useState<string | null>(null);
  const [marked, setMarked] = useState<MarkedEvent | null>(null);
  const chosen = events.find((event) => keyOf(event) === key) ?? null;
  const take = (next: string | null, draft: MarkedEvent | null) => {
    setKey(next);
    setMarked(draft);
  };
  return {
    event: marked ? { ...marked, severityDb: 0, pending: true } : chosen,
    draft: marked !== null,
    choose: (event) => take(keyOf(event), null),
    follow: (correctionId) => take(correctionId, null),
    mark: (event) => take(null, event),
    putDown: () => take(null, null),
  };
}

/** Where marking begins: at the playhead if it is to be seen, else in the middle of what is shown. */
export function markedAt(atS: number, [fromS, toS]: Span, lengthS: number): Span {
  const wideS = Math.min(1, Math.max(0.05, (toS - fromS) / 10));
  const startS = atS > fromS && atS < toS ? atS : (fromS + toS - wideS) / 2;
  const from = Math.max(0, Math.min(startS, lengthS - wideS));
  return [from, from + wideS];
}
