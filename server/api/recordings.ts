import type { RecordingDetail } from '@marvet/core/contract/recordings';
import { measureIdSchema } from '@marvet/core/domain/measureId';
import { cutSchema, performanceSchema, recordingLengthS, roomToneSchema } from '@marvet/core/domain/recording';
import { Hono } from 'hono';
import { channelWav } from '../audio/channelWav.ts';
import type { AudioFileRow, RecordingRow } from '../store/records.ts';
import { IsNull } from '../store/table.ts';
import { moveCut, spanOf } from './cuts.ts';
import { ApiError, notFound, parsed, pathId, readBody } from './http.ts';
import { performanceOf } from './performances.ts';
import { recordingRowsJson } from './recordingRows.ts';
import { isOpenToSay } from './sayCondition.ts';
import type { Services } from './services.ts';

/** Recordings of a trial: all of them with the figures of the table, one figure of all, or one with its whole report. */
export function recordingRoutes({ store, blobs, work, events }: Services): Hono {
  const placeOf = ({ recording, file }: { recording: RecordingRow; file: AudioFileRow }) => ({
    path: blobs.pathOf(file.sha256),
    channels: recording.channels,
    span: spanOf(recording),
  });
  async function present(trialId: string, id: string): Promise<{ recording: RecordingRow; file: AudioFileRow }> {
    const recording = await store.recordings.findOneBy({ id, trialId });
    const file = recording && (await store.files.findOneBy({ id: recording.fileId, binnedAtMs: IsNull() }));
    if (!recording || !file) throw notFound('recording');
    return { recording, file };
  }
  const within = ({ recording, file }: { recording: RecordingRow; file: AudioFileRow }, span: [number, number] | null, field: string) => {
    const lengthS = recordingLengthS(recording, file.format.durationS);
    if (span && span[1] > lengthS) {
      throw new ApiError(422, 'invalid', `The recording ends at ${lengthS.toFixed(2)} s; mark a stretch before that`, { [field]: 'Ends after the recording' });
    }
  };

  return (
    new Hono()
      .get('/', async (context) => context.body(await recordingRowsJson(store, pathId(context, 'trial')), 200, { 'Content-Type': 'application/json' }))
      /** One figure of every recording that has it. */
      .get('/figure/:measure', async (context) => {
        const measure = parsed(measureIdSchema, context.req.param('measure'));
        const rows = await store.query<{ id: string; value: number }>(
          `SELECT "id", json_extract("figures", ?) AS "value" FROM "recording" WHERE "trialId" = ? AND "figures" IS NOT NULL`,
          [`$."${measure}"`, pathId(context, 'trial')],
        );
        return context.json(Object.fromEntries(rows.flatMap(({ id, value }) => (value === null ? [] : [[id, value]]))));
      })
      .get('/:id', async (context) => {
        const { recording, file } = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const trial = await store.trials.findOneByOrFail({ id: recording.trialId });
        const take = recording.takeId === null ? null : await store.takes.findOneBy({ id: recording.takeId });
        const { shown: _shown, ...rest } = recording;
        const { programme, ...plain } = file;
        const detail: RecordingDetail = { ...rest, file: plain, programme, judged: performanceOf(recording, file, take, trial), conditionOpen: await isOpenToSay(store, take) };
        return context.json(detail);
      })
      .put('/:id/room-tone', async (context) => {
        const { recording, file } = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const { roomTone } = await readBody(context, roomToneSchema);
        within({ recording, file }, roomTone, 'roomTone');
        await store.write((tables) => tables.recordings.update(recording.id, { roomTone }));
        await work.measuring.request([file.id]);
        events.tell(file.trialId, { type: 'file', fileId: file.id });
        return context.body(null, 202);
      })
      .put('/:id/performance', async (context) => {
        const { recording, file } = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const { performance } = await readBody(context, performanceSchema);
        within({ recording, file }, performance, 'performance');
        await store.write((tables) => tables.recordings.update(recording.id, { performance }));
        events.tell(file.trialId, { type: 'file', fileId: file.id });
        return context.body(null, 204);
      })
      /** Moves the moment from which on a recording follows another one in its file; all channels of the file were switched at once. */
      .put('/:id/cut', async (context) => {
        const { recording, file } = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const { startS } = await readBody(context, cutSchema);
        await store.write((tables) => moveCut(tables, recording, file, startS));
        await work.measuring.request([file.id]);
        events.tell(file.trialId, { type: 'file', fileId: file.id });
        return context.body(null, 202);
      })
      /** This recording against another of the same performance. */
      .get('/:id/pair/:other', async (context) => {
        const own = await present(pathId(context, 'trial'), pathId(context, 'id'));
        const other = await present(pathId(context, 'trial'), pathId(context, 'other'));
        return context.json(await work.pair(own.recording.trialId, own.recording.id, { channel: placeOf(own), reference: placeOf(other) }));
      })
      /** Its channel as a mono file, or its two as a stereo one, so that any browser plays just that. */
      .get('/:id/audio', async (context) => {
        const recording = await store.recordings.findOneBy({ id: pathId(context, 'id'), trialId: pathId(context, 'trial') });
        const file = recording && (await store.files.findOneBy({ id: recording.fileId }));
        if (!recording || !file) throw notFound('recording');
        const { lengthBytes, body } = channelWav(blobs.pathOf(file.sha256), recording.channels, spanOf(recording));
        return context.body(body, 200, { 'Content-Type': 'audio/wav', 'Content-Length': String(lengthBytes), 'Cache-Control': 'private, max-age=3600' });
      })
  );
}
