import { closeSync, createReadStream, openSync } from 'node:fs';
import { joinedWav } from '@marvet/core/audio/joinedWav';
import { WavError } from '@marvet/core/audio/wavFormat';
import { type Joined, joinSchema, unjoinSchema } from '@marvet/core/contract/places';
import { withoutEnding } from '@marvet/core/domain/withoutEnding';
import { splitFiles } from '@marvet/core/takes/places/splitFiles';
import { Hono } from 'hono';
import { descriptorSource } from '../audio/fileSource.ts';
import { takesOf } from '../jobs/measuring.ts';
import type { ReadTables, Tables } from '../store/store.ts';
import { In, IsNull, present } from '../store/table.ts';
import { ApiError, changedMeanwhile, notFound, pathId, readBody } from './http.ts';
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
        const files = await store.files.findBy(present(trialId));
        const parts = fileIds.flatMap((id) => files.find((file) => file.id === id) ?? []);
        const [first, last] = [parts[0], parts.at(-1)];
        if (!first || !last || parts.length < fileIds.length) throw notFound('file');
        const recorder = recorderNameOf(first);
        const own = files.filter((file) => recorderNameOf(file) === recorder);
        // As far as a recorder split it, and no further: what only looks alike is not glued together.
        if (!splitFiles(own).some((split) => fileIds.join(' ') === split.fileIds.join(' ')))
          throw new ApiError(422, 'invalid', 'These files do not go on in each other: the next does not begin where the one before ends', {
            fileIds: 'They do not go on in each other',
          });
        await refuseHeard(store, trialId, fileIds);
        const staged = await blobs.stage(bytesOfAll(parts.map(({ sha256 }) => blobs.pathOf(sha256))));
        const { file } = await bringIn(services, trialId, { name: joinedName(first.name, last.name), folder: null, modifiedMs: last.modifiedAtMs }, staged, context.req.raw.signal);
        try {
          await store.write((tables) => putInPlaceOf(tables, trialId, file.id, fileIds, recorder));
        } catch (refused) {
          await binFile(services, trialId, file.id);
          throw refused;
        }
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

/**
 * Puts the joined file in the place of its parts. Samples take a while to be copied: whatever was done with a part meanwhile stands.
 * Another page that joined them as well has done the same.
 * @throws ApiError 409 where a part was deleted meanwhile, or is heard in a round by now
 */
async function putInPlaceOf(tables: Tables, trialId: string, fileId: string, partIds: readonly string[], recorder: string): Promise<void> {
  const left = await tables.files.find({ select: { id: true }, where: { id: In([...partIds]), ...present(trialId) } });
  if (left.length > 0 && left.length < partIds.length) throw changedMeanwhile('file', { fileIds: left.map(({ id }) => id) });
  await refuseHeard(tables, trialId, partIds);
  await tables.files.update({ id: fileId }, { recorder });
  await tables.files.update({ id: In([...partIds]), trialId, binnedAtMs: IsNull() }, { binnedAtMs: Date.now() });
}

async function binFile({ store, work }: Pick<Services, 'store' | 'work'>, trialId: string, id: string): Promise<void> {
  await store.write((tables) => tables.files.update({ id, trialId }, { binnedAtMs: Date.now() }));
  await work.measuring.forget(id);
}

/** @throws ApiError 409 where one of the files is heard in a round */
async function refuseHeard(from: Pick<ReadTables, 'recordings' | 'rounds' | 'files'>, trialId: string, fileIds: readonly string[]): Promise<void> {
  const rounds = await from.rounds.find({ select: { id: true, recordingIds: true }, where: present(trialId) });
  const heard = new Set(rounds.flatMap(({ recordingIds }) => recordingIds));
  const rows = await from.recordings.find({ select: { id: true, fileId: true }, where: { fileId: In([...fileIds]) } });
  const row = rows.find(({ id }) => heard.has(id));
  if (!row) return;
  const { name } = await from.files.findOneByOrFail({ id: row.fileId });
  throw new ApiError(409, 'heard', `${name} is heard in a listening round. Delete the round first, then join them.`);
}

/** The first name, and how far it reaches. @example joinedName('BELT_0007.WAV', 'BELT_0009.WAV') // 'BELT_0007 to 0009.wav' */
function joinedName(first: string, last: string): string {
  const end = withoutEnding(last);
  return `${withoutEnding(first)} to ${/(\d+)\D*$/.exec(end)?.[1] ?? end}.wav`;
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
