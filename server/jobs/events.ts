import { randomUUID } from 'node:crypto';
import type { TrialEvent } from '@marvet/core/contract/events';

/** An event with the id by which a page says how far it has heard. */
export interface SentEvent {
  id: string;
  event: TrialEvent;
}

type Listener = (sent: SentEvent) => void;

/** Events by trial: whoever listens gets what is told after that, and what was missed since an id. */
export interface EventBus {
  tell(trialId: string, event: TrialEvent): void;
  /** Tells every trial that somebody listens to or may come back to. */
  tellAll(event: TrialEvent): void;
  listen(trialId: string, listener: Listener): () => void;
  /** What was told after an id; a single `all` when that cannot be said any more. */
  since(trialId: string, id: string): SentEvent[];
}

/** Progress, and what is told while it happens, are of the moment: nobody needs them afterwards. */
const OF_THE_MOMENT: readonly TrialEvent['type'][] = ['progress', 'device', 'capture'];

/** A page that was away for longer than this many events asks for everything again. */
const KEPT = 200;

export function openEvents(): EventBus {
  // A server that was started anew knows nothing of the ids before it.
  const start = randomUUID().slice(0, 8);
  const trials = new Map<string, { count: number; kept: SentEvent[]; listeners: Set<Listener> }>();
  const of = (trialId: string) => {
    const known = trials.get(trialId) ?? { count: 0, kept: [], listeners: new Set<Listener>() };
    trials.set(trialId, known);
    return known;
  };
  const bus: EventBus = {
    tell(trialId, event) {
      const trial = of(trialId);
      const sent = { id: `${start}-${++trial.count}`, event };
      if (!OF_THE_MOMENT.includes(event.type)) trial.kept = [...trial.kept.slice(1 - KEPT), sent];
      for (const listener of trial.listeners) listener(sent);
    },
    tellAll(event) {
      for (const trialId of trials.keys()) bus.tell(trialId, event);
    },
    listen(trialId, listener) {
      const { listeners } = of(trialId);
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    since(trialId, id) {
      const { kept, count } = of(trialId);
      const [boot, number] = [id.slice(0, id.lastIndexOf('-')), Number(id.slice(id.lastIndexOf('-') + 1))];
      const numberOf = (sent: SentEvent) => Number(sent.id.slice(sent.id.lastIndexOf('-') + 1));
      const missed = kept.filter((sent) => numberOf(sent) > number);
      const first = kept[0] ? numberOf(kept[0]) : count + 1;
      if (boot !== start || !(number <= count) || (first > number + 1 && kept.length >= KEPT)) return [{ id: `${start}-${count}`, event: { type: 'all' } }];
      return missed;
    },
  };
  return bus;
}
