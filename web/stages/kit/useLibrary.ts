import type { PlacementDraft } from '@marvet/core/domain/placement';
import type { RigRecordDraft } from '@marvet/core/domain/rigRecord';
import { type LibraryKind, useBringBackToLibraryMutation, useKeepInLibraryMutation, useRemoveFromLibraryMutation } from '../../data/library.ts';
import { useNotice } from '../../parts/notices.tsx';
import { useTold } from '../../parts/useTold.ts';

/** Keeps placements or rigs in the library, and takes them out of it again with an undo. */
export function useLibrary(kind: LibraryKind) {
  const [keep] = useKeepInLibraryMutation();
  const [remove] = useRemoveFromLibraryMutation();
  const [bringBack] = useBringBackToLibraryMutation();
  const tell = useNotice();
  const told = useTold();
  return {
    keep: (draft: PlacementDraft | RigRecordDraft) => void told(keep({ kind, draft })),
    remove: (id: string, name: string) =>
      void told(remove({ kind, id })).then(({ error }) => {
        if (!error) tell(`${name} is out of the library`, () => void told(bringBack({ kind, id })));
      }),
  };
}
