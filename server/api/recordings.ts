import { Hono } from 'hono';
import { IsNull } from 'typeorm';
import { channelWav } from '../audio/channelWav.ts';
import { notFound, pathId } from './http.ts';
import type { Services } from './services.ts';

/** Recordings of a trial: all of them with their figures, or one with its whole report. */
export function recordingRoutes({ store, blobs }: Pick<Services, 'store' | 'blobs'>): Hono {
  return (
    new Hono()
      .get('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const files = await store.files.find({ select: { id: true, name: true, takeId: true, state: true, methodVersion: true }, where: { trialId, binnedAtMs: IsNull() } });
        const byId = new Map(files.map((file) => [file.id, file]));
        const rows = await store.recordings.find({
          select: { id: true, fileId: true, channelIndex: true, trackName: true, candidateId: true, figures: true },
          where: { trialId },
          order: { fileId: 'ASC', channelIndex: 'ASC' },
        });
        const shown = rows.flatMap((row) => {
          const file = byId.get(row.fileId);
          return file ? [{ ...row, fileName: file.name, takeId: file.takeId, state: file.state, methodVersion: file.methodVersion }] : [];
        });
        return context.json(shown);
      })
      .get('/:id', async (context) => {
        const recording = await store.recordings.findOneBy({ id: pathId(context, 'id'), trialId: pathId(context, 'trial') });
        const file = recording && (await store.files.findOneBy({ id: recording.fileId, binnedAtMs: IsNull() }));
        if (!recording || !file) throw notFound('recording');
        const { figures: _figures, ...rest } = recording;
        return context.json({ ...rest, takeId: file.takeId, file, programme: file.programme });
      })
      /** One channel as a mono file, so that any browser plays just that one. */
      .get('/:id/audio', async (context) => {
        const recording = await store.recordings.findOneBy({ id: pathId(context, 'id'), trialId: pathId(context, 'trial') });
        const file = recording && (await store.files.findOneBy({ id: recording.fileId }));
        if (!recording || !file) throw notFound('recording');
        const { lengthBytes, body } = channelWav(blobs.pathOf(file.sha256), recording.channelIndex);
        return context.body(body, 200, { 'Content-Type': 'audio/wav', 'Content-Length': String(lengthBytes), 'Cache-Control': 'private, max-age=3600' });
      })
  );
}
