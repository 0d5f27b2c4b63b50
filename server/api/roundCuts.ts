import type { RoundDraft } from '@marvet/core/domain/round';
import { isWide } from '@marvet/core/listen/blindClip';
import { levelMatch } from '@marvet/core/listen/levelMatch';
import type { ChannelPlace } from '../jobs/tasks.ts';
import type { RoundRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { In, IsNull, inParts } from '../store/table.ts';
import { spanOf } from './cuts.ts';
import { ApiError, notFound } from './http.ts';
import { performanceOf } from './performances.ts';
import type { Services } from './services.ts';

/** Cuts the recordings of a round to clips and matches them by the loudness of the voice in each. */
export async function matchedClips(
  { store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>,
  trialId: string,
  draft: Pick<RoundDraft, 'recordingIds' | 'targetLufs' | 'ceilingDbtp'>,
): Promise<Pick<RoundRow, 'matchedLufs' | 'gainsDb' | 'cuts' | 'lengthS'>> {
  const { cuts, lengthS } = await work.cut(trialId, { sources: await sourcesOf(store, blobs, trialId, draft.recordingIds) });
  const clips = cuts.map(({ voiceLufs, truePeakDbtp }) => {
    if (voiceLufs === null) {
      throw new ApiError(422, 'not-measured', 'A recording is silent where it would be heard, so it cannot be level-matched. Leave it out, or mark its performance in Takes.', {
        recordingIds: 'One of them has no loudness',
      });
    }
    return { integratedLufs: voiceLufs, truePeakDbtp };
  });
  const { matchedLufs, gainsDb } = levelMatch(clips, draft.targetLufs, draft.ceilingDbtp);
  return { matchedLufs, gainsDb, cuts: cuts.map(({ startS, delayMs }) => ({ startS, delayMs })), lengthS };
}

/** Whether any of some recordings is stereo: then all of their clips have two channels. */
export async function anyStereo(store: Pick<ReadTables, 'recordings'>, recordingIds: readonly string[]): Promise<boolean> {
  return isWide(await inParts(recordingIds, (part) => store.recordings.find({ select: { id: true, channels: true }, where: { id: part } })));
}

/** Where recordings lie, in the order of their ids. @throws ApiError 404 where one is gone */
export async function placesOf({ store, blobs }: Pick<Services, 'store' | 'blobs'>, trialId: string, ids: readonly string[]): Promise<ChannelPlace[]> {
  const select = { id: true, fileId: true, channels: true, startS: true, endS: true } as const;
  const recordings = await inParts(ids, (part) => store.recordings.find({ select, where: { id: part, trialId } }));
  const files = await inParts(
    recordings.map(({ fileId }) => fileId),
    (part) => store.files.find({ select: { id: true, sha256: true }, where: { id: part } }),
  );
  return ids.map((id) => {
    const recording = recordings.find((each) => each.id === id);
    const file = files.find((each) => each.id === recording?.fileId);
    if (!recording || !file) throw notFound('clip');
    return { path: blobs.pathOf(file.sha256), span: spanOf(recording), channels: recording.channels };
  });
}

/** What is to be cut: each recording with the part that is judged. */
export async function sourcesOf(store: ReadTables, blobs: Services['blobs'], trialId: string, recordingIds: readonly string[]) {
  const trial = await store.trials.findOneByOrFail({ id: trialId });
  const recordings = await store.recordings.findBy({ id: In([...recordingIds]), trialId });
  const files = await store.files.findBy({ id: In(recordings.map((recording) => recording.fileId)), binnedAtMs: IsNull() });
  const takes = await store.takes.findBy({ id: In(recordings.flatMap((recording) => recording.takeId ?? [])) });
  return recordingIds.map((id) => {
    const recording = recordings.find((each) => each.id === id);
    const file = files.find((each) => each.id === recording?.fileId);
    const take = takes.find((each) => each.id === recording?.takeId) ?? null;
    const judged = recording && file && performanceOf(recording, file, take, trial);
    if (!recording || !file || !judged) {
      throw new ApiError(422, 'not-measured', 'A recording is not measured yet, so it cannot be level-matched. Wait until it is, or leave it out.', {
        recordingIds: 'One of them is not measured yet',
      });
    }
    return {
      path: blobs.pathOf(file.sha256),
      channels: recording.channels,
      span: spanOf(recording),
      takeId: recording.takeId ?? recording.id,
      performance: judged.span,
      speech: recording.report?.activity.speech ?? [],
    };
  });
}
