import { type OpenListening, openListeningSchema, openPiecesSchema } from '@marvet/core/contract/openListening';
import { matchSections } from '@marvet/core/listen/clipTone';
import { Hono } from 'hono';
import type { ChannelPlace } from '../jobs/tasks.ts';
import { type HeardClip, pieceAnswer } from './clipPieces.ts';
import { parsed, pathId, readBody } from './http.ts';
import { matchedClips, placesOf } from './roundCuts.ts';
import type { Services } from './services.ts';

/** Listening with open eyes: the same clips as those of a round, matched and aligned, but everybody sees which is which and nothing is kept. */
export function openListeningRoutes({ store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  /** The same clips brought nearest to a recording; as they are where that cannot be told, which the pair says. */
  async function equalised(trialId: string, clips: readonly HeardClip[], equalTo: string): Promise<HeardClip[]> {
    const [reference, ...places] = (await placesOf({ store, blobs }, trialId, [equalTo, ...clips.map(({ recordingId }) => recordingId)])) as [ChannelPlace, ...ChannelPlace[]];
    return Promise.all(
      clips.map(async (clip, index) => {
        if (clip.recordingId === equalTo) return clip;
        const { pair } = await work.pair(trialId, clip.recordingId, { channel: places[index] as ChannelPlace, reference });
        return pair.eqMatch.length > 0 ? { ...clip, toned: { sections: matchSections(pair.eqMatch) } } : clip;
      }),
    );
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
    .get('/pieces/:piece', async (context) => {
      const trialId = pathId(context, 'trial');
      const { clips: plain, lengthS, equalTo } = parsed(openPiecesSchema, context.req.query());
      const clips = equalTo === undefined ? plain : [...plain, ...(await equalised(trialId, plain, equalTo))];
      return pieceAnswer({ store, blobs, work }, context, { trialId, subjectId: trialId, clips, heard: clips.map((_, place) => place), lengthS, disguised: false });
    });
}
