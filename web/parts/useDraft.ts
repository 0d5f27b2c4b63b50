import { useCallback, useEffect, useRef, useState } from 'react';

/**
 * A record as it is being changed. A change shows at once and the next builds on it, whatever the
 * server answers in between. Only when all are saved and nothing is on its way any more is the record
 * what the server says again; a refused change is then taken back.
 * @param fetching whether the record is being asked for; an answer on its way may be older than the last change
 * @param save sends a change
 */
export function useDraft<Value extends object>(
  saved: Value,
  fetching: boolean,
  save: (draft: Value, patch: Partial<Value>) => Promise<unknown>,
): { draft: Value; change: (patch: Partial<Value>) => void } {
  const [own, setOwn] = useState<Value | null>(null);
  const [unsaved, setUnsaved] = useState(0);
  const latest = useRef<Value | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const change = useCallback(
    (patch: Partial<Value>) => {
      const draft = { ...(latest.current ?? saved), ...patch };
      latest.current = draft;
      setOwn(draft);
      setUnsaved((count) => count + 1);
      // One after the other, so that the last change is also the last to arrive.
      queue.current = queue.current.then(() => save(draft, patch)).finally(() => setUnsaved((count) => count - 1));
    },
    [save, saved],
  );
  useEffect(() => {
    if (own === null || unsaved > 0 || fetching) return;
    latest.current = null;
    setOwn(null);
  }, [own, unsaved, fetching]);
  return { draft: own ?? saved, change };
}
