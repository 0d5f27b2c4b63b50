import type { BinKind } from '@marvet/core/contract/answers';
import { useCallback } from 'react';
import { useBinRecordMutation, useRestoreRecordMutation } from '../data/records.ts';
import { useNotice } from './notices.tsx';
import { useTold } from './useTold.ts';

/** Puts a record of a trial into the bin and offers to undo it. */
export function useBin(trialId: string, kind: BinKind): (id: string, name: string) => void {
  const [bin] = useBinRecordMutation();
  const [restore] = useRestoreRecordMutation();
  const tell = useNotice();
  const told = useTold();
  return useCallback(
    (id, name) => {
      void told(bin({ trialId, kind, id })).then(({ error }) => {
        if (!error) tell(`${name} is in the bin`, () => void told(restore({ trialId, kind, id })));
      });
    },
    [bin, restore, tell, told, trialId, kind],
  );
}
