import { type OpenListening, openClipSchema, openListeningSchema } from '@marvet/core/contract/openListening';
import { Hono } from 'hono';
import { spanOf } from './cuts.ts';
import { notFound, parsed, pathId, readBody } from './http.ts';
import { matchedClips } from './roundCuts.ts';
import type { Services } from './services.ts';

/** Listening with open eyes: the same clips as those of a round, matched and aligned, but everybody sees which is which and nothing is kept. */
export function openListeningRoutes({ store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  return new Hono()
    .post('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const asked = await readBody(context, openListeningSchema);
      const { matchedLufs, gainsDb, cuts, lengthS } = await matchedClips({ store, blobs, work }, trialId, asked);
      const clips = asked.recordingIds.map((recordingId, place) => ({
        recordingId,
        startS: cuts?.[place]?.startS ?? 0,
        gainDb: gainsDb[place] ?? 0,
      }));
      return context.json({ matchedLufs, clips, lengthS: lengthS ?? 0 } satisfies OpenListening);
    })
    .get('/clips/:recording', async (context) => {
      const trialId = pathId(context, 'trial');
      const { startS, lengthS, gainDb } = parsed(openClipSchema, context.req.query());
      const recording = await store.recordings.findOne({
        select: { id: true, fileId: true, channels: true, startS: true, endS: true },
        where: { id: pathId(context, 'recording'), trialId },
      });
      const file = recording && (await store.files.findOne({ select: { id: true, sha256: true }, where: { id: recording.fileId } }));
      if (!recording || !file) throw notFound('recording');
      const clip = await work.clip(recording.id, { path: blobs.pathOf(file.sha256), span: spanOf(recording), channel: recording.channels[0] as number, startS, lengthS, gainDb });
      return context.body(clip as Uint8Array<ArrayBuffer>, 200, { 'Content-Type': 'audio/wav', 'Cache-Control': 'no-store' });
    });
}
