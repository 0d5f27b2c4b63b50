import { type OpenListening, openClipSchema, openListeningSchema } from '@marvet/core/contract/openListening';
import { Hono } from 'hono';
import { parsed, pathId, readBody } from './http.ts';
import { anyStereo, clipOf, matchedClips } from './roundCuts.ts';
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
      const place = parsed(openClipSchema, context.req.query());
      const id = pathId(context, 'recording');
      const clip = await clipOf({ store, blobs, work }, { id, trialId }, id, place, await anyStereo(store, [id]));
      return context.body(clip, 200, { 'Content-Type': 'audio/wav', 'Cache-Control': 'no-store' });
    });
}
