import type { Chain } from '@marvet/core/domain/chain';
import type { Take } from '@marvet/core/domain/take';
import { useEffect, useSyncExternalStore } from 'react';
import { keep, kept } from '../../../data/keep.ts';
import { type ChannelUse, chosenChannels } from './chosenChannels.ts';
import { type RecorderState, takeRecorder } from './takeRecorder.ts';

/** How the recorder of this page stands. */
export function useRecorderState(): RecorderState {
  const recorder = takeRecorder();
  return useSyncExternalStore(recorder.subscribe, recorder.now);
}

/** What channels are of, as it was said on this computer for this trial. */
export const keptUses = (trialId: string): ChannelUse[] => kept(`channels/${trialId}`, { uses: [] as ChannelUse[] }).uses;
export const keepUses = (trialId: string, uses: readonly ChannelUse[]): void => keep(`channels/${trialId}`, { uses });

/** Records every take as it is started and stopped, while the recorder is armed. */
export function useRecordTakes(trialId: string, takes: readonly Take[], chains: readonly Chain[]): void {
  const { armed, recording, open } = useRecorderState();
  const rolling = takes.find(({ status }) => status === 'rolling');
  const recorded = recording && takes.find(({ id }) => id === recording.takeId);
  useEffect(() => {
    const recorder = takeRecorder();
    if (recorded && recorded.status !== 'rolling') recorder.end(recorded.status === 'planned');
    else if (armed && open && rolling && !recording) recorder.begin(trialId, rolling.id, chosenChannels(rolling, keptUses(trialId), chains, open.channels));
  }, [armed, open, rolling, recorded, recording, trialId, chains]);
}
