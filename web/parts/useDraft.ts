import { mergeRecords } from '@marvet/core/domain/merge';
import { useCallback, useEffect, useRef, useState } from 'react';
import { type Conflict, changedTo } from './useVersioned.ts';

/** What a save comes to: the record as it is saved, or why it is not. */
interface Saved {
  data?: { version: number };
  error?: unknown;
}

/**
 * A record as it is being changed. A change shows at once and the next builds on it, whatever the
 * server answers in between. Only when all are saved and nothing is on its way any more is the record
 * what the server says again; a refused change is then taken back. A change that another page overtook
 * waits until it is said which shall stay.
 * @param fetching whether the record is being asked for; an answer on its way may be older than the last change
 * @param save sends a change that started from a version
 */
export function useDraft<Value extends { version: number }>(
  saved: Value,
  fetching: boolean,
  save: (draft: Value, patch: Partial<Value>, version: number) => Promise<Saved>,
): { draft: Value; change: (patch: Partial<Value>) => void; conflict: Conflict | null } {
  const [own, setOwn] = useState<Value | null>(null);
  const [unsaved, setUnsaved] = useState(false);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const latest = useRef<Value | null>(null);
  /** What the change under way started from, and all that was changed since. */
  const base = useRef<{ value: Value; patch: Partial<Value> } | null>(null);
  const version = useRef(saved.version);
  const waiting = useRef(false);
  const pumpRef = useRef<() => Promise<void>>(async () => undefined);
  /** What was changed since the last save began; sent as one. */
  const unsent = useRef<Partial<Value> | null>(null);
  const sending = useRef(false);
  if (own === null && saved.version > version.current) version.current = saved.version;

  const send = useCallback(
    async (draft: Value, patch: Partial<Value>): Promise<void> => {
      // While it is open which of two changes stays, nothing more is sent: it is in the draft.
      if (waiting.current) return;
      const { data, error } = await save(draft, patch, version.current);
      if (data) version.current = data.version;
      const current = changedTo(error) as Value | null;
      if (!current) return;
      waiting.current = true;
      const { value: from, patch: all } = base.current ?? { value: saved, patch };
      const only = (record: Value) => Object.fromEntries(Object.keys(all).map((key) => [key, record[key as keyof Value]])) as Partial<Value>;
      // Only what this page shows of the record can have been changed here.
      const there = { ...(Object.fromEntries(Object.keys(from).map((key) => [key, current[key as keyof Value]])) as unknown as Value), version: from.version };
      const merged = mergeRecords(from, { ...from, ...all }, there);
      // What was changed while it was open which shall stay counts as well.
      const since = () => Object.fromEntries(Object.entries(base.current?.patch ?? {}).filter(([key, value]) => all[key as keyof Value] !== value)) as Partial<Value>;
      const settle = (keep: Partial<Value> | null) => () => {
        const patchToSend = keep && { ...keep, ...since() };
        waiting.current = false;
        version.current = current.version;
        base.current = null;
        setConflict(null);
        const next = { ...current, ...patchToSend };
        latest.current = next;
        unsent.current = patchToSend;
        setOwn(next);
        setUnsaved(true);
        void pumpRef.current();
      };
      setConflict({
        changes: merged.changes,
        touching: merged.touching,
        theirs: settle(null),
        mine: settle(all),
        both: merged.touching ? null : settle(only(merged.value)),
      });
    },
    [save, saved],
  );
  // One after the other, so that the last change is also the last to arrive; what came meanwhile goes together.
  const pump = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      while (unsent.current) {
        const patch = unsent.current;
        unsent.current = null;
        await send(latest.current as Value, patch);
      }
    } finally {
      sending.current = false;
      setUnsaved(false);
    }
  }, [send]);
  pumpRef.current = pump;
  const change = useCallback(
    (patch: Partial<Value>) => {
      const draft = { ...(latest.current ?? saved), ...patch };
      base.current = { value: base.current?.value ?? saved, patch: { ...base.current?.patch, ...patch } };
      latest.current = draft;
      unsent.current = { ...unsent.current, ...patch };
      setOwn(draft);
      setUnsaved(true);
      void pump();
    },
    [pump, saved],
  );
  useEffect(() => {
    if (!unsaved) return;
    // Whoever leaves or reloads before the last change is on the server is asked first.
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [unsaved]);
  useEffect(() => {
    // What is saved may reach the page a moment after the answer: until then the draft is the newer.
    if (own === null || unsaved || fetching || conflict || saved.version < version.current) return;
    latest.current = null;
    base.current = null;
    setOwn(null);
  }, [own, unsaved, fetching, conflict, saved.version]);
  return { draft: own ?? saved, change, conflict };
}
