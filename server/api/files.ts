import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import type { WavLayout } from '@marvet/core/audio/wavFormat';
import type { UploadResult } from '@marvet/core/contract/answers';
import type { FileChange, FileRow } from '@marvet/core/contract/recordings';
import { formatRemarks } from '@marvet/core/domain/formatRemarks';
import { instantMsSchema, newId } from '@marvet/core/domain/identity';
import { assignmentSchema } from '@marvet/core/domain/recording';
import { candidatesOf, firstSetups } from '@marvet/core/domain/take';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { matchFile, matchSources } from '@marvet/core/takes/matchFile';
import { recorderOf } from '@marvet/core/takes/places/recorderOf';
import { Hono } from 'hono';
import { z } from 'zod';
import { channelWav } from '../audio/channelWav.ts';
import { webStream } from '../audio/webStream.ts';
import { takesOf } from '../jobs/measuring.ts';
import { listedJson } from '../store/listedJson.ts';
import type { AudioFileRow, RecordingRow } from '../store/records.ts';
import type { ReadTables, Tables } from '../store/store.ts';
import { In, IsNull, Not, present } from '../store/table.ts';
import { assignFile } from './assignFile.ts';
import { cutFiles, UNMEASURED } from './cuts.ts';
import { ApiError, notFound, parsed, pathId, readBody } from './http.ts';
import { recordingRows } from './recordingRows.ts';
import type { Services } from './services.ts';
import { takeIn } from './takeIn.ts';

/** What is told of a file before its bytes. */
const arrivalSchema = z.object({
  name: z.string({ error: 'Give the file its name' }).trim().min(1, 'Give the file its name').max(255, 'A file name has at most 255 characters'),
  /** The folder that it lay in, from the root of what was chosen. */
  folder: z.string().max(1000, 'The path of a folder has at most 1,000 characters').nullable().default(null),
  modifiedMs: z.coerce.number({ error: 'When the file was last written is a number of milliseconds' }).pipe(instantMsSchema).nullable().default(null),
});
const againSchema = z.object({ which: z.enum(['all', 'old'], { error: 'Say all or old' }) });

const ofFirst = (column: string) => `(SELECT r."${column}" FROM "recording" r WHERE r."fileId" = "audio_file"."id" AND r."takeId" IS NOT NULL LIMIT 1)`;
/** The take of a file is that of its first recording that has one. */
const OF_FIRST = { takeId: ofFirst('takeId'), matchedBy: ofFirst('matchedBy') };

/** Files of a trial: bring in, tie to takes, measure again, bin. */
export function fileRoutes({ store, blobs, livePool, work, events }: Services): Hono {
  const { measuring } = work;
  async function presentFile(from: Pick<ReadTables, 'files'>, trialId: string, id: string): Promise<AudioFileRow> {
    const file = await from.files.findOneBy({ id, ...present(trialId) });
    if (!file) throw notFound('file');
    return file;
  }

  return (
    new Hono()
      .get('/', async (context) => {
        const trialId = pathId(context, 'trial');
        return context.body(await listedJson(store, 'files', '"trialId" = ? AND "binnedAtMs" IS NULL ORDER BY "uploadedAtMs", "name"', [trialId], OF_FIRST), 200, {
          'Content-Type': 'application/json',
        });
      })
      /** A file with its recordings as the tables show them: what an event about the file asks for. */
      .get('/:id', async (context) => {
        const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
        const [file = null] = JSON.parse(await listedJson(store, 'files', '"trialId" = ? AND "id" = ? AND "binnedAtMs" IS NULL', [trialId, id], OF_FIRST)) as FileRow[];
        const change: FileChange = { file, recordings: file ? await recordingRows(store, trialId, id) : [] };
        return context.json(change);
      })
      /** The body is the file itself. It is on the disk, hashed and flushed, before the answer says so; refused, it leaves nothing. */
      .post('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const { name, folder, modifiedMs } = parsed(arrivalSchema, context.req.query());
        if (!(await store.trials.existsBy({ id: trialId }))) throw notFound('trial');
        const body = context.req.raw.body;
        if (!body) throw new ApiError(422, 'empty', `${name} is empty: 0 bytes`);
        const staged = await blobs.stage(Readable.fromWeb(body as never));
        const taken = await takeIn({ blobs, pool: livePool }, staged, name, context.req.raw.signal);
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
        if (!result.duplicate || result.file.state === 'queued') await measuring.request([result.file.id]);
        events.tell(trialId, { type: 'file', fileId: result.file.id });
        return context.json(result, result.duplicate ? 200 : 201);
      })
      .put('/:id/assignment', async (context) => {
        const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
        const { takeId, channels, slateSpoken } = await readBody(context, assignmentSchema);
        const left = await store.write(async (tables) => {
          const file = await presentFile(tables, trialId, id);
          const before = await takesOf(tables, file.id);
          if (slateSpoken !== undefined) await tables.files.update(file.id, { slateSpoken });
          return { before, cut: await assignFile(tables, file, { takeId, by: 'hand', channels }) };
        });
        if (left.cut) await measuring.request([id]);
        await work.against.look(trialId, [...left.before, takeId]);
        events.tell(trialId, { type: 'file', fileId: id });
        return context.body(null, 204);
      })
      .post('/:id/cancel', async (context) => {
        const file = await presentFile(store, pathId(context, 'trial'), pathId(context, 'id'));
        await measuring.cancel(file.id);
        return context.body(null, 204);
      })
      .post('/:id/measure', async (context) => {
        const file = await presentFile(store, pathId(context, 'trial'), pathId(context, 'id'));
        await measuring.request([file.id]);
        events.tell(file.trialId, { type: 'file', fileId: file.id });
        return context.body(null, 202);
      })
      /** Measures all files of a trial again, or only those whose figures are of an older method. */
      .post('/measure', async (context) => {
        const trialId = pathId(context, 'trial');
        const { which } = await readBody(context, againSchema);
        const here = { ...present(trialId), state: In(['done', 'failed']) };
        const old = [
          { ...here, methodVersion: Not(METHOD_VERSION) },
          { ...here, methodVersion: IsNull() },
        ];
        const files = await store.files.find({ select: { id: true }, where: which === 'all' ? here : old });
        await measuring.request(files.map((file) => file.id));
        events.tell(trialId, { type: 'records', tags: ['Files', 'Recordings', 'Trials'], page: null });
        return context.json({ files: files.length }, 202);
      })
      /** How loud all of it is over time, whatever it is cut into. */
      .get('/:id/levels', async (context) => {
        const file = await presentFile(store, pathId(context, 'trial'), pathId(context, 'id'));
        return context.json(await work.levels(file.trialId, { path: blobs.pathOf(file.sha256) }));
      })
      /** One channel of all of it as a mono file, whatever it is cut into. */
      .get('/:id/channels/:channel/audio', async (context) => {
        const file = await presentFile(store, pathId(context, 'trial'), pathId(context, 'id'));
        const channel = parsed(
          z.coerce
            .number()
            .int()
            .min(0)
            .max(file.format.channels - 1),
          context.req.param('channel'),
        );
        const { lengthBytes, body } = channelWav(blobs.pathOf(file.sha256), [channel], [null, null]);
        return context.body(body, 200, { 'Content-Type': 'audio/wav', 'Content-Length': String(lengthBytes), 'Cache-Control': 'private, max-age=3600' });
      })
      .get('/:id/audio', async (context) => {
        const file = await presentFile(store, pathId(context, 'trial'), pathId(context, 'id'));
        // The file as it came, whatever was taken out of it.
        return sendAudio(blobs.pathOf(file.originalSha256 ?? file.sha256), context.req.header('range'), file.originalSha256 === null ? 'audio/wav' : 'application/octet-stream');
      })
      .delete('/:id', async (context) => {
        const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
        await store.write(async (tables) => {
          await presentFile(tables, trialId, id);
          await tables.files.update(id, { binnedAtMs: Date.now() });
        });
        await measuring.forget(id);
        await work.against.look(trialId, await takesOf(store, id));
        events.tell(trialId, { type: 'file', fileId: id });
        return context.body(null, 204);
      })
  );
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

async function sendAudio(path: string, range: string | undefined, type: string): Promise<Response> {
  const { size } = await stat(path);
  const match = /^bytes=(\d+)-(\d*)$/.exec(range ?? '');
  const start = match ? Number(match[1]) : 0;
  const end = match?.[2] ? Math.min(Number(match[2]), size - 1) : size - 1;
  if (start > end) return new Response(null, { status: 416, headers: { 'Content-Range': `bytes */${size}` } });
  const headers = new Headers({ 'Content-Type': type, 'Accept-Ranges': 'bytes', 'Content-Length': String(end - start + 1), 'Cache-Control': 'no-store' });
  if (match) headers.set('Content-Range', `bytes ${start}-${end}/${size}`);
  return new Response(webStream(createReadStream(path, { start, end })) as never, { status: match ? 206 : 200, headers });
}
