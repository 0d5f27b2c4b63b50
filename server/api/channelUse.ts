import { stereoSetSchema, swapSchema } from '@marvet/core/contract/channelUse';
import { newId } from '@marvet/core/domain/identity';
import { Hono } from 'hono';
import { sameSpan } from '../jobs/keepReport.ts';
import type { AudioFileRow, RecordingRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import { present } from '../store/table.ts';
import { letGo, type Placed, placedRows, spanOf, UNMEASURED } from './cuts.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import { recorderNameOf } from './recorderTies.ts';
import type { Services } from './services.ts';

/** What the channels of files are used for: two of them as one stereo recording, and a backup in place of its main track. */
export function channelUseRoutes({ store, work, events }: Services): Hono {
  return (
    new Hono()
      /** Says which channels of a file, or of all files of its recorder that have as many, are stereo; all others are recordings of their own. */
      .put('/:id/stereo', async (context) => {
        const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
        const { firstChannels, allOfRecorder } = await readBody(context, stereoSetSchema);
        const { changed, takeIds } = await store.write(async (tables) => {
          const files = await tables.files.findBy(present(trialId));
          const file = files.find((each) => each.id === id);
          if (!file) throw notFound('file');
          const alike = (each: AudioFileRow) => recorderNameOf(each) === recorderNameOf(file) && each.format.channels === file.format.channels;
          const meant = allOfRecorder ? files.filter(alike) : [file];
          const changed: string[] = [];
          const takeIds = new Set<string | null>();
          for (const each of meant) {
            const rows = await setStereo(tables, each, firstChannels);
            if (rows.length > 0) changed.push(each.id);
            for (const { takeId } of rows) takeIds.add(takeId);
          }
          return { changed, takeIds: [...takeIds] };
        });
        if (changed.length > 0) await work.measuring.request(changed);
        await work.against.look(trialId, takeIds);
        events.tell(trialId, { type: 'records', tags: ['Files', 'Recordings', 'Verdict'], page: null });
        return context.json({ files: changed.length });
      })
      /** Gives two recordings of one take each other's candidate: a backup is used in place of its main track, or the other way round. */
      .post('/swap', async (context) => {
        const trialId = pathId(context, 'trial');
        const { recordingIds } = await readBody(context, swapSchema);
        const takeId = await store.write(async (tables) => {
          const [a, b] = await Promise.all(recordingIds.map((id) => tables.recordings.findOneBy({ id, trialId })));
          if (!a || !b) throw notFound('recording');
          const ofOneFile = a.fileId === b.fileId && sameSpan(spanOf(a), spanOf(b));
          if (a.takeId !== b.takeId || !(ofOneFile || isBackupOf(a, b) || isBackupOf(b, a)))
            throw new ApiError(422, 'invalid', 'Only two channels of one file, or a backup and its main track, can stand for each other, and in one take only', {
              recordingIds: 'Not of one file, nor one the backup of the other, or not in one take',
            });
          await tables.recordings.update(a.id, { setupId: b.setupId });
          await tables.recordings.update(b.id, { setupId: a.setupId });
          return a.takeId;
        });
        await work.against.look(trialId, [takeId]);
        events.tell(trialId, { type: 'records', tags: ['Files', 'Recordings', 'Verdict'], page: null });
        return context.body(null, 204);
      })
  );
}

const isBackupOf = ({ backup }: Pick<RecordingRow, 'backup'>, { fileId, channels }: Pick<RecordingRow, 'fileId' | 'channels'>) =>
  backup?.ofFile?.id === fileId && channels.length === 1 && channels[0] === backup.ofChannel;

/**
 * Makes two channels one stereo recording, or two again, in each stretch of a file. What is marked on either is marked on both.
 * @returns recordings as they were that changed
 * @throws ApiError 409 where one of them was listened to: a score would be of another sound
 */
async function setStereo(tables: Tables, file: Pick<AudioFileRow, 'id' | 'trialId' | 'name' | 'format'>, firstChannels: readonly number[]): Promise<Placed[]> {
  const strange = firstChannels.find((channel) => channel + 1 >= file.format.channels);
  if (strange !== undefined) throw new ApiError(422, 'invalid', `${file.name} has no channel ${strange + 2}`, { firstChannels: 'No such channels' });
  const rows = await placedRows(tables, file.id);
  const joining = rows.filter(({ channels }) => channels.length === 1 && firstChannels.includes(channels[0] as number));
  const parting = rows.filter(({ channels }) => channels.length === 2 && !firstChannels.includes(channels[0] as number));
  const partners = joining.map((row) =>
    rows.find(({ channels, ...span }) => channels.length === 1 && channels[0] === (row.channels[0] as number) + 1 && sameSpan(spanOf(span), spanOf(row))),
  );
  const changed = [...joining, ...parting, ...partners.flatMap((row) => row ?? [])];
  await refuseHeard(tables, file, changed);
  for (const [index, row] of joining.entries()) {
    const partner = partners[index];
    if (!partner) continue;
    await tables.recordings.update(row.id, {
      channels: [row.channels[0] as number, partner.channels[0] as number],
      setupId: row.setupId ?? partner.setupId,
      backup: null,
      // Parted before, both have what was marked on the two: each of it is there once.
      corrections: [...new Map([...row.corrections, ...partner.corrections].map((each) => [each.id, each])).values()],
      roomTone: row.roomTone ?? partner.roomTone,
      performance: row.performance ?? partner.performance,
      ...UNMEASURED,
    });
    await letGo(tables, partner);
  }
  for (const row of parting) {
    const [first, other] = row.channels as [number, number];
    await tables.recordings.update(row.id, { channels: [first], ...UNMEASURED });
    await tables.recordings.insert({ ...row, id: newId(), channels: [other], trackName: file.format.trackNames[other] ?? null, setupId: null, ...UNMEASURED });
  }
  return changed;
}

async function refuseHeard(tables: Tables, { trialId, name }: Pick<AudioFileRow, 'trialId' | 'name'>, rows: readonly Placed[]): Promise<void> {
  const rounds = await tables.rounds.find({ select: { id: true, recordingIds: true }, where: { trialId } });
  if (!rounds.some(({ recordingIds }) => rows.some(({ id }) => recordingIds.includes(id)))) return;
  throw new ApiError(409, 'heard', `${name} was listened to in a round: what was scored would be another sound. Bring the file in once more to use it otherwise.`);
}
