import type { WavLayout } from '@marvet/core/audio/wavFormat';
import type { UploadResult } from '@marvet/core/contract/answers';
import { formatRemarks } from '@marvet/core/domain/formatRemarks';
import { newId } from '@marvet/core/domain/identity';
import { candidatesOf, firstSetups } from '@marvet/core/domain/take';
import { matchFile, matchSources } from '@marvet/core/takes/matchFile';
import { recorderOf } from '@marvet/core/takes/places/recorderOf';
import type { StagedBlob } from '../audio/blobs.ts';
import type { AudioFileRow, RecordingRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import { In, present } from '../store/table.ts';
import { cutFiles, UNMEASURED } from './cuts.ts';
import type { Services } from './services.ts';
import { takeIn } from './takeIn.ts';

/** What is told of a file beside its bytes. */
interface Told {
  name: string;
  folder: string | null;
  modifiedMs: number | null;
}

/**
 * Brings a file in whose bytes are here: looked at, given its names for good, tied to what its names speak of, and measured. The same bytes
 * again, or the same sound in another wrapping, are told and not kept twice.
 * @throws ApiError 422 where it is no sound; then nothing is left of it
 */
export async function bringIn(
  { store, blobs, livePool, work, events }: Pick<Services, 'store' | 'blobs' | 'livePool' | 'work' | 'events'>,
  trialId: string,
  { name, folder, modifiedMs }: Told,
  staged: StagedBlob,
  signal: AbortSignal,
): Promise<UploadResult> {
  const taken = await takeIn({ blobs, pool: livePool }, staged, name, signal);
  const result = await store.write(async (tables): Promise<UploadResult> => {
    const { originalSha256, sha256 } = taken;
    const twin = (await tables.files.findOneBy({ trialId, originalSha256 })) ?? (await tables.files.findOneBy({ trialId, sha256 }));
    if (twin) {
      // Bytes that were lost come back this way; the same sound in another wrapping is not kept twice.
      if ((twin.originalSha256 ?? twin.sha256) === originalSha256) await taken.keep();
      if (twin.binnedAtMs !== null) await tables.files.update(twin.id, { binnedAtMs: null });
      return { file: { ...twin, binnedAtMs: null }, matchedBy: null, duplicate: true };
    }
    // Inside the write, so that nobody who clears loose bytes away meanwhile takes these along.
    const blob = await taken.keep();
    return { ...(await newFile(tables, { trialId, name, modifiedAtMs: modifiedMs, folder, ...blob }, taken.layout)), duplicate: false };
  });
  await taken.tidy();
  if (!result.duplicate || result.file.state === 'queued') await work.measuring.request([result.file.id]);
  events.tell(trialId, { type: 'file', fileId: result.file.id });
  return result;
}

/**
 * Stores a new file with its channels, tied to the take and setups that its names speak of.
 * @param recorded what it is of, where it was recorded straight into Marvet and nothing has to be guessed
 */
export async function newFile(
  tables: Tables,
  {
    folder = null,
    ...file
  }: Pick<AudioFileRow, 'trialId' | 'name' | 'sha256' | 'sizeBytes'> & { originalSha256?: string | null; modifiedAtMs?: number | null; folder?: string | null },
  layout: WavLayout,
  recorded?: { takeId: string; setupIds: (string | null)[] },
): Promise<{ file: AudioFileRow; matchedBy: RecordingRow['matchedBy'] }> {
  const { format, warnings } = layout;
  const takes = await tables.takes.find({ select: { id: true, slate: true, pass: true }, where: present(file.trialId) });
  const match = recorded ? { takeId: recorded.takeId, by: 'recorded here' as const } : matchFile(file.name, format, takes);
  const take = match && (await tables.takes.findOneBy({ id: match.takeId }));
  const chains = take ? await tables.chains.findBy({ id: In(candidatesOf(take)) }) : [];
  const setupIds = recorded ? recorded.setupIds : take ? matchSources(file.name, format.trackNames, sourceChannels(format), firstSetups(take), chains) : [];
  const row: AudioFileRow = {
    ...file,
    originalSha256: file.originalSha256 ?? null,
    modifiedAtMs: file.modifiedAtMs ?? null,
    recorder: recorderOf({ name: file.name, folder, originator: format.originator }),
    id: newId(),
    uploadedAtMs: Date.now(),
    format,
    state: 'queued',
    failure: null,
    methodVersion: null,
    warnings: [...formatRemarks(format), ...warnings],
    programme: null,
    slateSpoken: null,
    binnedAtMs: null,
  };
  const recordings = sourceChannels(format).map(
    (channelIndex): RecordingRow => ({
      id: newId(),
      fileId: row.id,
      trialId: file.trialId,
      channels: format.stereoFrom.includes(channelIndex) ? [channelIndex, channelIndex + 1] : [channelIndex],
      startS: null,
      endS: null,
      cutBy: null,
      logStartS: null,
      trackName: format.trackNames[channelIndex] ?? null,
      takeId: match?.takeId ?? null,
      setupId: setupIds[channelIndex] ?? null,
      matchedBy: match?.by ?? null,
      ...UNMEASURED,
      backup: null,
      roomTone: null,
      performance: null,
      corrections: [],
    }),
  );
  await tables.files.insert(row);
  await tables.recordings.insert(recordings);
  if (take) await cutFiles(tables, [row]);
  return { file: row, matchedBy: match?.by ?? null };
}

/** The channels with which the sources of a file begin: a channel each, or two that its container has as stereo. */
function sourceChannels({ trackNames, stereoFrom }: AudioFileRow['format']): number[] {
  return trackNames.flatMap((_, channel) => (stereoFrom.includes(channel - 1) ? [] : [channel]));
}
