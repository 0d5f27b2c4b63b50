import { equalisedClipSchema, type OpenListening, openListeningSchema } from '@marvet/core/contract/openListening';
import { Hono } from 'hono';
import type { ChannelPlace } from '../jobs/tasks.ts';
import { parsed, pathId, readBody } from './http.ts';
import { anyStereo, clipOf, matchedClips, placesOf } from './roundCuts.ts';
import type { Services } from './services.ts';

/** Listening with open eyes: the same clips as those of a round, matched and aligned, but everybody sees which is which and nothing is kept. */
export function openListeningRoutes({ store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  /** Filters that bring a recording nearest to another; none where they cannot be told, which the pair says. */
  async function filtersTo(trialId: string, id: string, equalTo: string) {
    const [channel, reference] = (await placesOf({ store, blobs }, trialId, [id, equalTo])) as [ChannelPlace, ChannelPlace];
    return (await work.pair(trialId, id, { channel, reference })).pair.eqMatch;
  }

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
      const { equalTo, ...place } = parsed(equalisedClipSchema, context.req.query());
      const id = pathId(context, 'recording');
      const filters = equalTo === undefined ? [] : await filtersTo(trialId, id, equalTo);
      const clip = await clipOf({ store, blobs, work }, { id, trialId }, id, { ...place, filters }, await anyStereo(store, [id]));
      return context.body(clip, 200, { 'Content-Type': 'audio/wav', 'Cache-Control': 'no-store' });
    });
}
