import { type ChangedField, mergeRecords } from '@marvet/core/domain/merge';
import { useCallback, useState } from 'react';
import type { ApiTrouble } from '../data/api.ts';

/** Two changes of one record that met: what differs, and what can be done about it. */
export interface Conflict {
  changes: ChangedField[];
  touching: boolean;
  /** Leaves it as the other page made it. */
  theirs(): void;
  /** Overwrites the other change. */
  mine(): void;
  /** Keeps both; null where they touch. */
  both: (() => void) | null;
}

/** What a save comes to. */
interface Saved {
  error?: unknown;
}

/** The record as it is, where a save was refused since it had been changed meanwhile. */
export function changedTo(error: unknown): (object & { version: number }) | null {
  const trouble = error as Partial<ApiTrouble> | undefined;
  return trouble?.code === 'changed' ? (trouble.current as object & { version: number }) : null;
}

/**
 * Saves a record as a whole. Where another page changed it in the meantime, nothing is overwritten: both
 * states are there to choose from.
 * @param send saves a draft over the version given
 * @param onDone called once it is saved, or left as the other page made it
 */
export function useVersioned<Draft extends object>(
  send: (draft: Draft, version: number) => Promise<Saved>,
  onDone: () => void,
): { save: (base: Draft, draft: Draft, version: number) => Promise<void>; conflict: Conflict | null } {
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const save = useCallback(
    async (base: Draft, draft: Draft, version: number): Promise<void> => {
      const { error } = await send(draft, version);
      const current = changedTo(error);
      if (!current) {
        setConflict(null);
        if (!error) onDone();
        return;
      }
      const theirs = Object.fromEntries(Object.keys(draft).map((key) => [key, (current as Record<string, unknown>)[key]])) as Draft;
      const own = Object.fromEntries(Object.keys(draft).map((key) => [key, (base as Record<string, unknown>)[key]])) as Draft;
      const merged = mergeRecords(own, draft, theirs);
      const again = (value: Draft) => () => void save(theirs, value, current.version);
      setConflict({
        changes: merged.changes,
        touching: merged.touching,
        theirs: () => {
          setConflict(null);
          onDone();
        },
        mine: again(draft),
        both: merged.touching ? null : again(merged.value),
      });
    },
    [send, onDone],
  );
  return { save, conflict };
}
