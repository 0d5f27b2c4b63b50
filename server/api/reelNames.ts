import { slateLabel } from '@marvet/core/domain/take';
import type { ReadTables } from '../store/store.ts';
import { In } from '../store/table.ts';
import { notFound } from './http.ts';

export type Described = Awaited<ReturnType<typeof described>>[number];

/** What each recording is: its candidate and take as a name, and its file. */
export async function described(store: ReadTables, trialId: string, recordingIds: readonly string[]) {
  const recordings = await store.recordings.find({ select: { id: true, fileId: true, takeId: true, setupId: true }, where: { id: In([...recordingIds]), trialId } });
  const takes = await store.takes.findBy({ id: In(recordings.flatMap(({ takeId }) => takeId ?? [])) });
  const chains = await store.chains.findBy({ trialId });
  const files = await store.files.findBy({ id: In(recordings.map(({ fileId }) => fileId)) });
  return recordingIds.map((id) => {
    const recording = recordings.find((each) => each.id === id);
    const file = files.find((each) => each.id === recording?.fileId);
    if (!recording || !file) throw notFound('recording');
    const take = takes.find((each) => each.id === recording.takeId) ?? null;
    const chain = chains.find((each) => each.id === take?.setups.find((setup) => setup.id === recording.setupId)?.candidateId);
    return {
      file,
      take,
      tape: chain?.tape.letters ?? null,
      takeId: recording.takeId,
      name: [chain?.name ?? file.name, take && `take ${slateLabel(take)}`].filter(Boolean).join(', '),
    };
  });
}

/** What each recording is called in a reel. */
export const reelNames = async (store: ReadTables, trialId: string, recordingIds: readonly string[]): Promise<string[]> =>
  (await described(store, trialId, recordingIds)).map(({ name }) => name);
