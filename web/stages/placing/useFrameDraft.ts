import type { FrameDraft, StoredFrame } from '@marvet/core/domain/frame';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useSaveFrameMutation } from '../../data/records.ts';
import { useDraft } from '../../parts/useDraft.ts';

type Patch = Partial<FrameDraft>;

/** Keys that follow each other faster are one move. */
const SETTLES_MS = 350;

/**
 * A frame as it is being changed. What is moved by hand shows at once and is kept when it comes to rest: when the
 * pointer lets go, or a moment after the last key.
 */
export function useFrameDraft(saved: StoredFrame, fetching: boolean) {
  const { trialId, id } = saved;
  const [save, { error }] = useSaveFrameMutation();
  const { draft, change, conflict } = useDraft(
    saved,
    fetching,
    useCallback(
      ({ id: _id, trialId: _trial, binnedAtMs: _binned, version: _version, ...frame }: StoredFrame, _patch: Partial<StoredFrame>, version: number) =>
        save({ trialId, from: { id, version }, draft: frame }),
      [save, trialId, id],
    ),
  );
  const [moved, setMoved] = useState<Patch | null>(null);
  const unkept = useRef<Patch | null>(null);
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
  const move = useCallback((patch: Patch, byKey: boolean) => {
    unkept.current = { ...unkept.current, ...patch };
    setMoved(unkept.current);
    clearTimeout(timer.current);
    if (byKey) timer.current = setTimeout(() => latest.current(), SETTLES_MS);
  }, []);
  return { frame: { ...draft, ...moved }, kept: draft, change, move, rest, conflict, error };
}
