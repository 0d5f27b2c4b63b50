import { EVENT_KINDS, type EventKind } from '../domain/measureId.ts';
import type { AudioEvent } from '../measure/report.types.ts';

/** A recording of a candidate with its events, from its first moment to its last. */
export interface HeardRecording {
  candidateId: string;
  recordingId: string;
  takeId: string;
  lengthS: number;
  events: readonly AudioEvent[];
}

/** A moment at which an event is heard. */
export interface EventMoment {
  recordingId: string;
  takeId: string;
  event: AudioEvent;
}

/** Events of one kind of one candidate. */
export interface KindTold {
  kind: EventKind;
  count: number;
  perMinute: number;
  /** The strongest, each of another take as far as there are. */
  worst: EventMoment[];
}

/** What was found in the recordings of a candidate. */
export interface EventsTold {
  candidateId: string;
  recordings: number;
  /** Length of all of them. */
  minutes: number;
  kinds: KindTold[];
}

const MOST_MOMENTS = 4;

/** Events by candidate and kind, the kind that came most often first, with the moments at which they are heard best. */
export function eventsTold(recordings: readonly HeardRecording[], candidateIds: readonly string[]): EventsTold[] {
  return candidateIds.map((candidateId) => {
    const own = recordings.filter((each) => each.candidateId === candidateId);
    const minutes = own.reduce((sum, { lengthS }) => sum + lengthS, 0) / 60;
    const kinds = EVENT_KINDS.flatMap((kind): KindTold[] => {
      const moments = own
        .flatMap(({ recordingId, takeId, events }) => events.filter((event) => event.kind === kind).map((event): EventMoment => ({ recordingId, takeId, event })))
        .sort((a, b) => b.event.severityDb - a.event.severityDb);
      if (moments.length === 0) return [];
      const ofTakes = moments.filter(({ takeId }, at) => moments.findIndex((each) => each.takeId === takeId) === at);
      const worst = [...ofTakes, ...moments.filter((moment) => !ofTakes.includes(moment))].slice(0, MOST_MOMENTS);
      return [{ kind, count: moments.length, perMinute: minutes > 0 ? moments.length / minutes : 0, worst }];
    });
    return { candidateId, recordings: own.length, minutes, kinds: kinds.sort((a, b) => b.perMinute - a.perMinute) };
  });
}
