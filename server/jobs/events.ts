/** What a page hears of while it is open. */
export type TrialEvent = { type: 'progress'; fileId: string; share: number } | { type: 'file'; fileId: string } | { type: 'takes' };

type Listener = (event: TrialEvent) => void;

/** Events by trial: whoever listens gets what is told after that. */
export interface EventBus {
  tell(trialId: string, event: TrialEvent): void;
  listen(trialId: string, listener: Listener): () => void;
}

export function openEvents(): EventBus {
  const listeners = new Map<string, Set<Listener>>();
  return {
    tell(trialId, event) {
      for (const listener of listeners.get(trialId) ?? []) listener(event);
    },
    listen(trialId, listener) {
      const set = listeners.get(trialId) ?? new Set();
      listeners.set(trialId, set);
      set.add(listener);
      return () => set.delete(listener);
    },
  };
}
