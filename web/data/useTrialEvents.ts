import { useEffect, useState } from 'react';
import { api } from './api.ts';
import { useAppDispatch } from './store.ts';

const REFRESH_EVERY_MS = 400;

/**
 * Listens to a trial's events while it is open: refreshes what changed and gives the progress of files
 * that are being measured, by file id. Many changes at once refresh once.
 */
export function useTrialEvents(trialId: string): ReadonlyMap<string, number> {
  const dispatch = useAppDispatch();
  const [progress, setProgress] = useState<ReadonlyMap<string, number>>(new Map());
  useEffect(() => {
    const source = new EventSource(`/api/trials/${trialId}/events`);
    const stale = new Set<'Files' | 'Recordings' | 'Takes' | 'Trials' | 'Verdict' | 'Bin'>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const refresh = (...tags: ('Files' | 'Recordings' | 'Takes' | 'Trials' | 'Verdict' | 'Bin')[]) => {
      for (const tag of tags) stale.add(tag);
      timer ??= setTimeout(() => {
        timer = undefined;
        dispatch(api.util.invalidateTags([...stale]));
        stale.clear();
      }, REFRESH_EVERY_MS);
    };
    source.addEventListener('progress', (event) => {
      const { fileId, share } = JSON.parse(event.data) as { fileId: string; share: number };
      setProgress((all) => new Map(all).set(fileId, share));
    });
    source.addEventListener('file', (event) => {
      const { fileId } = JSON.parse(event.data) as { fileId: string };
      setProgress((all) => {
        const rest = new Map(all);
        rest.delete(fileId);
        return rest;
      });
      refresh('Files', 'Recordings', 'Trials', 'Verdict');
    });
    source.addEventListener('takes', () => refresh('Takes', 'Trials', 'Verdict'));
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [trialId, dispatch]);
  return progress;
}
