import type { StoredFrame } from '@marvet/core/domain/frame';
import { useCallback } from 'react';
import { useSaveFrameMutation } from '../../data/records.ts';
import { useMovedDraft } from '../../parts/useMovedDraft.ts';

/** A frame as it is being changed and moved by hand. */
export function useFrameDraft(saved: StoredFrame, fetching: boolean) {
  const { trialId, id } = saved;
  const [save, { error }] = useSaveFrameMutation();
  const { shown, ...draft } = useMovedDraft(
    saved,
    fetching,
    useCallback(
      ({ id: _id, trialId: _trial, binnedAtMs: _binned, version: _version, ...frame }: StoredFrame, _patch: Partial<StoredFrame>, version: number) =>
        save({ trialId, from: { id, version }, draft: frame }),
      [save, trialId, id],
    ),
  );
  return { frame: shown, ...draft, error };
}
