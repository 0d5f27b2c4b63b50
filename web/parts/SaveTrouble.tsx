import { ConflictChoice } from './ConflictChoice.tsx';
import { Trouble } from './states.tsx';
import { type Conflict, changedTo } from './useVersioned.ts';

/**
 * Why a record was not saved: another page changed it, with both states to choose from; or the reason of the server.
 * @param what the record as it is called at the start of a sentence
 */
export function SaveTrouble({ what, conflict, error }: { what: string; conflict: Conflict | null; error: unknown }) {
  if (conflict) return <ConflictChoice conflict={conflict} what={what} />;
  return changedTo(error) ? null : <Trouble error={error} />;
}
