import { useEffect, useRef, useState } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import { keptDrafts } from './keptDrafts.ts';

/** What was entered in a dialog the last time and never saved. */
export interface KeptDraft {
  /** Whether there is any. */
  offered: boolean;
  takeUp(): void;
  discard(): void;
  /** Forgets it, once it was saved or given up. */
  done(): void;
}

/**
 * Keeps what is entered in a dialog while it is open, so that Escape, Back or a closed page do not throw
 * it away: the next time it is offered again.
 * @param key of the record, and of the kind where it is new
 */
export function useKeptDraft<Values extends FieldValues>(key: string, form: UseFormReturn<Values>): KeptDraft {
  const [offered, setOffered] = useState(() => keptDrafts.get(key) !== null);
  const open = useRef(true);
  useEffect(() => {
    open.current = true;
    const watching = form.watch((values, { type }) => {
      // Only what a person did; a reset is no change.
      if (open.current && (type === 'change' || form.formState.isDirty)) keptDrafts.set(key, values);
    });
    return () => {
      open.current = false;
      watching.unsubscribe();
    };
  }, [key, form]);
  const forget = () => {
    keptDrafts.remove(key);
    setOffered(false);
  };
  return {
    offered,
    takeUp() {
      const values = keptDrafts.get(key);
      if (values) form.reset(values as Values, { keepDefaultValues: true });
      setOffered(false);
    },
    discard: forget,
    done() {
      open.current = false;
      keptDrafts.remove(key);
    },
  };
}
