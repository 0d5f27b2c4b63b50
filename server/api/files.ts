import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import type { FileChange, FileRow } from '@marvet/core/contract/recordings';
import { assignmentSchema } from '@marvet/core/domain/recording';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { Hono } from 'hono';
import { z } from 'zod';
import { channelWav } from '../audio/channelWav.ts';
import { webStream } from '../audio/webStream.ts';
import { takesOf } from '../jobs/measuring.ts';
import { listedJson } from '../store/listedJson.ts';
import type { AudioFileRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { In, IsNull, Not, present } from '../store/table.ts';
import { arrivalSchema } from './arriving.ts';
import { assignFile } from './assignFile.ts';
import { ApiError, notFound, parsed, pathId, readBody } from './http.ts';
import { bringIn } from './newFile.ts';
import { recordingRows } from './recordingRows.ts';
import type { Services } from './services.ts';

const againSchema = z.object({ which: z.enum(['all', 'old'], { error: 'Say all or old' }) });

const ofFirst = (column: string) => `(SELECT r."${column}" FROM "recording" r WHERE r."fileId" = "audio_file"."id" AND r."takeId" IS NOT NULL LIMIT 1)`;
/** The take of a file is that of its first recording that has one. */
const OF_FIRST = { takeId: ofFirst('takeId'), matchedBy: ofFirst('matchedBy') };

/** Files of a trial: bring in, tie to takes, measure again, bin. */
export function fileRoutes(services: Services): Hono {
  const { store, blobs, work, events } = services;
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
        const result = await bringIn(services, trialId, { name, folder, modifiedMs }, await blobs.stage(Readable.fromWeb(body as never)), context.req.raw.signal);
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
