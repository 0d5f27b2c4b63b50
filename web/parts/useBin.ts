import { useCallback } from 'react';
import { troubleText } from '../app/api/base.ts';
import { useBinRecordMutation, useRestoreRecordMutation } from '../app/api/records.ts';
import { useNotice } from './notices.tsx';

/** Puts a record of a trial into the bin and offers to undo it. */
export function useBin(trialId: string, kind: string): (id: string, name: string) => void {
  const [bin] = useBinRecordMutation();
  const [restore] = useRestoreRecordMutation();
  const tell = useNotice();
  return useCallback(
    (id, name) => {
      bin({ trialId, kind, id }).then(({ error }) => {
        if (error) tell(troubleText(error) ?? '');
        else tell(`${name} is in the bin`, () => void restore({ trialId, kind, id }));
      });
    },
    [bin, restore, tell, trialId, kind],
  );
}
