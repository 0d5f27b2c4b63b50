import { useCallback, useRef, useState } from 'react';

/**
 * A record as it is being changed. A change shows at once and the next builds on it, whatever the
 * server answers in between; when all are saved the record is what the server says, and a refused
 * change is taken back.
 * @param save sends a change; it settles once the saved record is on the page
 */
export function useDraft<Value extends object>(
  saved: Value,
  save: (draft: Value, patch: Partial<Value>) => Promise<unknown>,
): { draft: Value; change: (patch: Partial<Value>) => void } {
  const [own, setOwn] = useState<Value | null>(null);
  const latest = useRef<Value | null>(null);
  const pending = useRef(0);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const change = useCallback(
    (patch: Partial<Value>) => {
      const draft = { ...(latest.current ?? saved), ...patch };
      latest.current = draft;
      setOwn(draft);
      pending.current++;
      // One after the other, so that the last change is also the last to arrive.
      queue.current = queue.current
        .then(() => save(draft, patch))
        .finally(() => {
          pending.current--;
          if (pending.current > 0) return;
          latest.current = null;
          setOwn(null);
        });
    },
    [save, saved],
  );
  return { draft: own ?? saved, change };
}
