import { RECORD_TAGS, type RecordTag, type TrialEvent } from '@marvet/core/contract/events';
import { useEffect, useState } from 'react';
import { api, PAGE_ID } from './api.ts';
import { tellCaptureHeard } from './captureHeard.ts';
import { devicesApi } from './devices.ts';
import { replaced } from './replaced.ts';
import { store, useAppDispatch } from './store.ts';
import { workApi } from './work.ts';

const REFRESH_EVERY_MS = 400;
/** More files than this at once are asked for together. */
const MOST_ONE_BY_ONE = 12;
const OF_A_FILE: RecordTag[] = ['Trials', 'Verdict', 'Sounds'];
/**
 * Listens to a trial's events while it is open: refreshes what changed elsewhere and gives the progress
 * of files that are being measured, by file id. A measured file brings its own rows, nothing else. After a
 * break the browser says what it heard last, and hears what it missed.
 */
export function useTrialEvents(trialId: string): ReadonlyMap<string, number> {
  const dispatch = useAppDispatch();
  const [progress, setProgress] = useState<ReadonlyMap<string, number>>(new Map());
  useEffect(() => {
    const source = new EventSource(`/api/trials/${trialId}/events`);
    const stale = new Set<RecordTag>();
    const files = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const flush = async () => {
      timer = undefined;
      const changed = [...files];
      files.clear();
      if (changed.length > MOST_ONE_BY_ONE) for (const tag of ['Files', 'Recordings'] as const) stale.add(tag);
      else for (const fileId of changed) await refreshFile(fileId);
      dispatch(api.util.invalidateTags([...stale]));
      stale.clear();
    };
    const refreshFile = async (fileId: string) => {
      const answer = await dispatch(workApi.endpoints.file.initiate({ trialId, fileId }, { forceRefetch: true, subscribe: false }));
      const change = answer.data;
      if (!change) return void stale.add('Files').add('Recordings');
      dispatch(workApi.util.updateQueryData('files', trialId, (rows) => replaced(rows, fileId, (row) => row.id, change.file ? [change.file] : [])));
      dispatch(workApi.util.updateQueryData('recordings', trialId, (rows) => replaced(rows, fileId, (row) => row.fileId, change.recordings)));
      for (const { id } of change.recordings) dispatch(api.util.invalidateTags([{ type: 'Recordings', id }]));
    };
    const refresh = (tags: readonly RecordTag[], fileId?: string) => {
      for (const tag of tags) stale.add(tag);
      if (fileId) files.add(fileId);
      timer ??= setTimeout(() => void flush(), REFRESH_EVERY_MS);
    };
    const on = <Type extends TrialEvent['type']>(type: Type, told: (event: Extract<TrialEvent, { type: Type }>) => void) =>
      source.addEventListener(type, (event) => told(JSON.parse(event.data) as Extract<TrialEvent, { type: Type }>));
    on('progress', ({ fileId, share }) => setProgress((all) => new Map(all).set(fileId, share)));
    on('file', ({ fileId }) => {
      setProgress((all) => new Map([...all].filter(([id]) => id !== fileId)));
      refresh(OF_A_FILE, fileId);
    });
    on('records', ({ tags, page }) => page !== PAGE_ID && refresh(tags));
    // What a device tells right now goes straight to where it is shown: nothing is asked for.
    on('device', ({ state }) =>
      dispatch(devicesApi.util.updateQueryData('liveDevices', trialId, (states) => [...states.filter(({ deviceId }) => deviceId !== state.deviceId), state])),
    );
    on('capture', ({ told }) => tellCaptureHeard(told));
    on('all', () => refresh(RECORD_TAGS));
    // A page that heard nothing with a number yet cannot say what it missed while it was cut off: everything is asked for again.
    let cutOff = false;
    source.addEventListener('error', () => {
      cutOff = true;
    });
    source.addEventListener('hello', () => {
      // The server is there, though something on the page was kept from before.
      if (cutOff || store.getState().reach.keptSince !== null) refresh(RECORD_TAGS);
      cutOff = false;
    });
    return () => {
      clearTimeout(timer);
      source.close();
    };
  }, [trialId, dispatch]);
  return progress;
}
