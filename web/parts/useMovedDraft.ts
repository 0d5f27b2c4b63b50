import { useCallback, useEffect, useRef, useState } from 'react';
import { useDraft } from './useDraft.ts';

/** Keys that follow each other faster are one move. */
const SETTLES_MS = 350;

/**
 * A record as it is being changed and moved by hand. What is moved shows at once and is kept when it comes to rest: when
 * the pointer lets go, or a moment after the last key.
 */
export function useMovedDraft<Value extends { version: number }>(saved: Value, fetching: boolean, save: Parameters<typeof useDraft<Value>>[2]) {
  const { draft, change, conflict } = useDraft(saved, fetching, save);
  const [moved, setMoved] = useState<Partial<Value> | null>(null);
  const unkept = useRef<Partial<Value> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const rest = useCallback(() => {
    clearTimeout(timer.current);
    if (unkept.current) change(unkept.current);
    unkept.current = null;
    setMoved(null);
  }, [change]);
  const latest = useRef(rest);
  latest.current = rest;
  useEffect(() => () => latest.current(), []);
  const move = useCallback((patch: Partial<Value>, byKey: boolean) => {
    unkept.current = { ...unkept.current, ...patch };
    setMoved(unkept.current);
    clearTimeout(timer.current);
    if (byKey) timer.current = setTimeout(() => latest.current(), SETTLES_MS);
  }, []);
  return { shown: { ...draft, ...moved } as Value, kept: draft, change, move, rest, conflict };
}
