import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { WavError, type WavLayout } from '@marvet/core/audio/wavFormat';
import { newId } from '@marvet/core/domain/identity';
import { assignmentSchema, type MeasureState } from '@marvet/core/domain/recording';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { matchChannels, matchFile } from '@marvet/core/takes/matchFile';
import { Hono } from 'hono';
import { In, IsNull, Not } from 'typeorm';
import { z } from 'zod';
import { withFileSource } from '../audio/fileSource.ts';
import type { AudioFileRow, RecordingRow } from '../store/rows.ts';
import type { Tables } from '../store/store.ts';
import { ApiError, notFound, parsed, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

const nameSchema = z.object({ name: z.string().trim().min(1, 'Give the file its name').max(255, 'A file name has at most 255 characters') });

const againSchema = z.object({ which: z.enum(['all', 'old'], { error: 'Say all or old' }) });

/** Files of a trial: bring in, tie to takes, measure again, bin. */
export function fileRoutes({ store, blobs, measuring, events }: Services): Hono {
  async function present(trialId: string, id: string): Promise<AudioFileRow> {
    const file = await store.files.findOneBy({ id, trialId, binnedAtMs: IsNull() });
    if (!file) throw notFound('file');
    return file;
  }

  return (
    new Hono()
      .get('/', async (context) => {
        const files = await store.files.find({ where: { trialId: pathId(context, 'trial'), binnedAtMs: IsNull() }, order: { uploadedAtMs: 'ASC', name: 'ASC' } });
        return context.json(files);
      })
      /** The body is the file itself. It is on the disk, hashed and flushed, before the answer says so. */
      .post('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const { name } = parsed(nameSchema, { name: context.req.query('name') });
        if (!(await store.trials.existsBy({ id: trialId }))) throw notFound('trial');
        const body = context.req.raw.body;
        if (!body) throw new ApiError(422, 'empty', `${name} is empty: 0 bytes`);
        const blob = await blobs.write(Readable.fromWeb(body as never));
        const layout = readHeader(blobs.pathOf(blob.sha256), name);
        const result = await store.transaction(async (tables) => {
          const twin = await tables.files.findOneBy({ trialId, sha256: blob.sha256 });
          if (twin) {
            if (twin.binnedAtMs !== null) await tables.files.update(twin.id, { binnedAtMs: null });
            return { file: { ...twin, binnedAtMs: null }, duplicate: true };
          }
          const file = await newFile(tables, { trialId, name, ...blob }, layout);
          return { file, duplicate: false };
        });
        if (!result.duplicate) measuring.add(result.file);
        events.tell(trialId, { type: 'file', fileId: result.file.id });
        return context.json(result, result.duplicate ? 200 : 201);
      })
      .put('/:id/assignment', async (context) => {
        const file = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const { takeId, channels } = await readBody(context, assignmentSchema);
        await store.transaction(async (tables) => {
          const take = takeId === null ? null : await tables.takes.findOneBy({ id: takeId, trialId: file.trialId, binnedAtMs: IsNull() });
          if (takeId !== null && !take) throw notFound('take');
          const strange = channels.find(({ candidateId }) => candidateId !== null && !take?.candidateIds.includes(candidateId));
          if (strange) throw new ApiError(422, 'invalid', `Channel ${strange.channelIndex + 1}: that candidate is not in this take`, { channels: 'Choose candidates of the take' });
          await tables.files.update(file.id, { takeId, matchedBy: takeId === null ? null : 'hand' });
          for (const { channelIndex, candidateId, trackName } of channels) {
            const named = trackName === undefined ? {} : { trackName: trackName || null };
            await tables.recordings.update({ fileId: file.id, channelIndex }, { candidateId, ...named });
          }
        });
        events.tell(file.trialId, { type: 'file', fileId: file.id });
        return context.json(await present(file.trialId, file.id));
      })
      .post('/:id/cancel', async (context) => {
        const file = await present(pathId(context, 'trial'), pathId(context, 'id'));
        measuring.cancel(file.id);
        return context.body(null, 204);
      })
      .post('/:id/measure', async (context) => {
        const file = await present(pathId(context, 'trial'), pathId(context, 'id'));
        await store.files.update(file.id, { state: 'queued', failure: null });
        measuring.add(file);
        events.tell(file.trialId, { type: 'file', fileId: file.id });
        return context.body(null, 202);
      })
      /** Measures all files of a trial again, or only those whose figures are of an older method. */
      .post('/measure', async (context) => {
        const trialId = pathId(context, 'trial');
        const { which } = await readBody(context, againSchema);
        const here = { trialId, binnedAtMs: IsNull(), state: In(['done', 'failed'] satisfies MeasureState[]) };
        const files = await store.files.find({
          where:
            which === 'all'
              ? here
              : [
                  { ...here, methodVersion: Not(METHOD_VERSION) },
                  { ...here, methodVersion: IsNull() },
                ],
        });
        await store.files.update({ id: In(files.map((file) => file.id)) }, { state: 'queued', failure: null });
        for (const file of files) measuring.add(file);
        events.tell(trialId, { type: 'takes' });
        return context.json({ files: files.length }, 202);
      })
      .get('/:id/audio', async (context) => {
        const file = await present(pathId(context, 'trial'), pathId(context, 'id'));
        return sendAudio(blobs.pathOf(file.sha256), context.req.header('range'));
      })
      .delete('/:id', async (context) => {
        const file = await present(pathId(context, 'trial'), pathId(context, 'id'));
        measuring.cancel(file.id);
        await store.files.update(file.id, { binnedAtMs: Date.now() });
        events.tell(file.trialId, { type: 'file', fileId: file.id });
        return context.body(null, 204);
      })
  );
}

/** @throws ApiError 422 that names the file and says what is wrong with it */
function readHeader(path: string, name: string): WavLayout {
  try {
    return withFileSource(path, readWavHeader);
  } catch (error) {
    if (error instanceof WavError) throw new ApiError(422, error.code, `${name}: ${error.message}`);
    throw error;
  }
}

/** Stores a new file with its channels, tied to the take and candidates that its names speak of. */
export async function newFile(tables: Tables, file: Pick<AudioFileRow, 'trialId' | 'name' | 'sha256' | 'sizeBytes'>, layout: WavLayout): Promise<AudioFileRow> {
  const { format, warnings } = layout;
  const takes = await tables.takes.findBy({ trialId: file.trialId, binnedAtMs: IsNull() });
  const match = matchFile(file.name, format, takes);
  const inTake = takes.find((take) => take.id === match?.takeId)?.candidateIds ?? [];
  const chains = (await tables.chains.findBy({ trialId: file.trialId })).filter((chain) => inTake.includes(chain.id));
  const candidates = matchChannels(file.name, format.trackNames, chains);
  const row: AudioFileRow = {
    ...file,
    id: newId(),
    uploadedAtMs: Date.now(),
    format,
    state: 'queued',
    failure: null,
    methodVersion: null,
    warnings,
    programme: null,
    takeId: match?.takeId ?? null,
    matchedBy: match?.by ?? null,
    binnedAtMs: null,
  };
  const recordings = format.trackNames.map(
    (trackName, channelIndex): RecordingRow => ({
      id: newId(),
      fileId: row.id,
      trialId: file.trialId,
      channelIndex,
      trackName,
      candidateId: match ? (candidates[channelIndex] ?? null) : null,
      figures: null,
      report: null,
      series: null,
      roomTone: null,
    }),
  );
  await tables.files.insert(row);
  await tables.recordings.insert(recordings);
  return row;
}

async function sendAudio(path: string, range: string | undefined): Promise<Response> {
  const { size } = await stat(path);
  const match = /^bytes=(\d+)-(\d*)$/.exec(range ?? '');
  const start = match ? Number(match[1]) : 0;
  const end = match?.[2] ? Math.min(Number(match[2]), size - 1) : size - 1;
  if (start > end) return new Response(null, { status: 416, headers: { 'Content-Range': `bytes */${size}` } });
  const headers = new Headers({ 'Content-Type': 'audio/wav', 'Accept-Ranges': 'bytes', 'Content-Length': String(end - start + 1), 'Cache-Control': 'no-store' });
  if (match) headers.set('Content-Range', `bytes ${start}-${end}/${size}`);
  return new Response(Readable.toWeb(createReadStream(path, { start, end })) as never, { status: match ? 206 : 200, headers });
}
