import { type BlindRound, ratingDraftSchema } from '@marvet/core/domain/session';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { Hono } from 'hono';
import { In, IsNull } from 'typeorm';
import { openClipCache } from '../audio/clipCache.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

/**
 * What a listener's page may ask before the listener is done. Nothing here names a recording, a file,
 * a take or a candidate; clips are alike in length, form and headers.
 */
export function listenRoutes({ store, blobs, pool }: Pick<Services, 'store' | 'blobs' | 'pool'>): Hono {
  const cache = openClipCache(store, blobs, pool);

  async function present(id: string) {
    const listener = await store.listeners.findOneBy({ id, binnedAtMs: IsNull() });
    const session = listener && (await store.sessions.findOneBy({ id: listener.sessionId, binnedAtMs: IsNull() }));
    if (!listener || !session) throw notFound('listening round');
    return { listener, session, letters: BLIND_LETTERS.slice(0, session.recordingIds.length) };
  }

  return new Hono()
    .get('/:listener', async (context) => {
      const { listener, session, letters } = await present(pathId(context, 'listener'));
      const criteria = await store.criteria.find({ where: { id: In(session.criterionIds) }, order: { position: 'ASC' } });
      const ratings = await store.ratings.findBy({ listenerId: listener.id });
      const round: BlindRound = {
        listenerId: listener.id,
        listenerName: listener.name,
        listenedOn: listener.listenedOn,
        title: session.title,
        letters,
        matchedLufs: session.matchedLufs,
        targetLufs: session.targetLufs,
        criteria: criteria.map(({ id, name, remark, best, worst, worstWords, bestWords }) => ({ id, name, remark, best, worst, worstWords, bestWords })),
        ratings: ratings.map(({ letter, criterionId, points, reason }) => ({ letter, criterionId, points, reason })),
        finished: listener.finishedAtMs !== null,
      };
      return context.json(round);
    })
    .get('/:listener/clips/:letter', async (context) => {
      const { listener, session, letters } = await present(pathId(context, 'listener'));
      const place = listener.order[letters.indexOf(context.req.param('letter'))];
      if (place === undefined) throw notFound('clip');
      const clip = (await cache.clips(session))[place];
      if (!clip) throw notFound('clip');
      return context.body(clip as Uint8Array<ArrayBuffer>, 200, { 'Content-Type': 'audio/wav', 'Cache-Control': 'no-store' });
    })
    .put('/:listener/ratings', async (context) => {
      const { listener, session, letters } = await present(pathId(context, 'listener'));
      if (listener.finishedAtMs !== null) throw new ApiError(409, 'finished', 'This round is finished and its identities are open: scores can no longer change');
      const rating = await readBody(context, ratingDraftSchema);
      if (!letters.includes(rating.letter) || !session.criterionIds.includes(rating.criterionId)) throw notFound('clip or criterion in this round');
      await store.ratings.upsert({ ...rating, listenerId: listener.id }, ['listenerId', 'letter', 'criterionId']);
      return context.json(rating);
    })
    .post('/:listener/finish', async (context) => {
      const { listener, session, letters } = await present(pathId(context, 'listener'));
      const rated = await store.ratings.countBy({ listenerId: listener.id });
      const wanted = letters.length * session.criterionIds.length;
      if (rated < wanted) throw new ApiError(422, 'incomplete', `${wanted - rated} of ${wanted} scores are still open. Score every clip, then finish.`);
      await store.listeners.update({ id: listener.id, finishedAtMs: IsNull() }, { finishedAtMs: Date.now() });
      return context.body(null, 204);
    });
}
