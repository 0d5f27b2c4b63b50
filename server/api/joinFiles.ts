import { closeSync, createReadStream, openSync } from 'node:fs';
import { joinedWav } from '@marvet/core/audio/joinedWav';
import { WavError } from '@marvet/core/audio/wavFormat';
import { type Joined, joinSchema, unjoinSchema } from '@marvet/core/contract/places';
import { splitFiles } from '@marvet/core/takes/places/splitFiles';
import { Hono } from 'hono';
import { descriptorSource } from '../audio/fileSource.ts';
import { takesOf } from '../jobs/measuring.ts';
import type { AudioFileRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { In, IsNull, present } from '../store/table.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import { bringIn } from './newFile.ts';
import { recorderNameOf } from './recorderTies.ts';
import type { Services } from './services.ts';

/** Joins files that a recorder split to one, which is measured and placed as any other; the parts lie in the bin as they came. */
export function joinRoutes(services: Services): Hono {
  const { store, blobs, work, events } = services;

  return (
    new Hono()
      .post('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const { fileIds } = await readBody(context, joinSchema);
        const files = await store.files.findBy({ id: In(fileIds), ...present(trialId) });
        const parts = fileIds.map((id) => files.find((file) => file.id === id)).filter((file) => file !== undefined);
        if (parts.length < fileIds.length) throw notFound('file');
        const [first, last] = [parts[0] as AudioFileRow, parts.at(-1) as AudioFileRow];
        const recorder = recorderNameOf(first);
        const own = (await store.files.findBy(present(trialId))).filter((file) => recorderNameOf(file) === recorder);
        // As far as a recorder split it, and no further: what only looks alike is not glued together.
        if (!splitFiles(own).some((split) => fileIds.join(' ') === split.fileIds.join(' ')))
          throw new ApiError(422, 'invalid', 'These files do not go on in each other: the next does not begin where the one before ends', {
            fileIds: 'They do not go on in each other',
          });
        const heard = await heardIn(store, trialId, fileIds);
        if (heard) throw new ApiError(409, 'heard', `${heard} is heard in a listening round. Delete the round first, then join them.`);
        const staged = await blobs.stage(bytesOfAll(parts.map(({ sha256 }) => blobs.pathOf(sha256))));
        const { file } = await bringIn(services, trialId, { name: joinedName(parts), folder: null, modifiedMs: last.modifiedAtMs }, staged, context.req.raw.signal);
        await store.write(async (tables) => {
          await tables.files.update(file.id, { recorder });
          await tables.files.update({ id: In(fileIds), trialId, binnedAtMs: IsNull() }, { binnedAtMs: Date.now() });
        });
        for (const id of fileIds) await work.measuring.forget(id);
        await tellAll(trialId, fileIds);
        return context.json({ fileId: file.id, name: file.name } satisfies Joined, 201);
      })
      /** Takes joining back: the parts are there as they were, tied as they were. */
      .post('/undo', async (context) => {
        const trialId = pathId(context, 'trial');
        const { fileId, fileIds } = await readBody(context, unjoinSchema);
        await store.write(async (tables) => {
          const { affected } = await tables.files.update({ id: In(fileIds), trialId }, { binnedAtMs: null });
          if (affected !== fileIds.length) throw notFound('file');
          await tables.files.update({ id: fileId, trialId, binnedAtMs: IsNull() }, { binnedAtMs: Date.now() });
        });
        await work.measuring.forget(fileId);
        const waiting = await store.files.find({ select: { id: true }, where: { id: In(fileIds), state: In(['queued', 'measuring']) } });
        await work.measuring.request(waiting.map(({ id }) => id));
        await tellAll(trialId, [fileId, ...fileIds]);
        return context.body(null, 204);
      })
  );

  async function tellAll(trialId: string, fileIds: readonly string[]): Promise<void> {
    const takes = await Promise.all(fileIds.map((id) => takesOf(store, id)));
    await work.against.look(trialId, [...new Set(takes.flat())]);
    events.tell(trialId, { type: 'records', tags: ['Files', 'Recordings', 'Trials', 'Verdict'], page: null });
  }
}

/** The name of one of the files that is heard in a round; null where none is. */
async function heardIn(from: Pick<ReadTables, 'recordings' | 'rounds' | 'files'>, trialId: string, fileIds: readonly string[]): Promise<string | null> {
  const rounds = await from.rounds.find({ select: { id: true, recordingIds: true }, where: present(trialId) });
  const heard = new Set(rounds.flatMap(({ recordingIds }) => recordingIds));
  const rows = await from.recordings.find({ select: { id: true, fileId: true }, where: { fileId: In([...fileIds]) } });
  const fileId = rows.find(({ id }) => heard.has(id))?.fileId;
  return fileId === undefined ? null : ((await from.files.findOneBy({ id: fileId }))?.name ?? null);
}

/** The first name, and how far it reaches: `BELT_0007 to 0009.wav`. */
function joinedName(parts: readonly AudioFileRow[]): string {
  const [first, last] = [parts[0] as AudioFileRow, parts.at(-1) as AudioFileRow];
  const stem = first.name.replace(/\.[A-Za-z0-9]{1,5}$/, '');
  const number = /(\d+)\D*$/.exec(last.name.replace(/\.[A-Za-z0-9]{1,5}$/, ''))?.[1] ?? last.name;
  return `${stem} to ${number}.wav`;
}

async function* bytesOfAll(paths: readonly string[]): AsyncGenerator<Uint8Array> {
  const joined = headOf(paths);
  yield joined.head;
  for (const [index, path] of paths.entries()) {
    const { dataOffset, dataBytes } = joined.parts[index] as (typeof joined.parts)[number];
    yield* createReadStream(path, { start: dataOffset, end: dataOffset + dataBytes - 1, highWaterMark: 1 << 20 }) as AsyncIterable<Uint8Array>;
  }
  if (joined.padBytes) yield new Uint8Array(1);
}

/** @throws ApiError 422 where they are not stored alike */
function headOf(paths: readonly string[]) {
  const open: number[] = [];
  try {
    for (const path of paths) open.push(openSync(path, 'r'));
    return joinedWav(open.map(descriptorSource));
  } catch (error) {
    if (error instanceof WavError) throw new ApiError(422, error.code, error.message);
    throw error;
  } finally {
    for (const descriptor of open) closeSync(descriptor);
  }
}
