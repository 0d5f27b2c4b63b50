import { type BlindRound, ratingDraftSchema } from '@marvet/core/domain/round';
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
    const round = listener && (await store.rounds.findOneBy({ id: listener.roundId, binnedAtMs: IsNull() }));
    if (!listener || !round) throw notFound('listening round');
    return { listener, round, letters: BLIND_LETTERS.slice(0, round.recordingIds.length) };
  }

  return new Hono()
    .get('/:listener', async (context) => {
      const { listener, round, letters } = await present(pathId(context, 'listener'));
      const criteria = await store.criteria.find({ where: { id: In(round.criterionIds) }, order: { position: 'ASC' } });
      const ratings = await store.ratings.findBy({ listenerId: listener.id });
      const blind: BlindRound = {
        listenerId: listener.id,
        listenerName: listener.name,
        listenedOn: listener.listenedOn,
        title: round.title,
        letters,
        matchedLufs: round.matchedLufs,
        targetLufs: round.targetLufs,
        criteria: criteria.map(({ id, name, remark, best, worst, worstWords, bestWords }) => ({ id, name, remark, best, worst, worstWords, bestWords })),
        ratings: ratings.map(({ letter, criterionId, points, reason }) => ({ letter, criterionId, points, reason })),
        finished: listener.finishedAtMs !== null,
      };
      return context.json(blind);
    })
    .get('/:listener/clips/:letter', async (context) => {
      const { listener, round, letters } = await present(pathId(context, 'listener'));
      const place = listener.order[letters.indexOf(context.req.param('letter'))];
      if (place === undefined) throw notFound('clip');
      const clip = (await cache.clips(round))[place];
      if (!clip) throw notFound('clip');
      return context.body(clip as Uint8Array<ArrayBuffer>, 200, { 'Content-Type': 'audio/wav', 'Cache-Control': 'no-store' });
    })
    .put('/:listener/ratings', async (context) => {
      const { listener, round, letters } = await present(pathId(context, 'listener'));
      if (listener.finishedAtMs !== null) throw new ApiError(409, 'finished', 'This round is finished and its identities are open: scores can no longer change');
      const rating = await readBody(context, ratingDraftSchema);
      if (!letters.includes(rating.letter) || !round.criterionIds.includes(rating.criterionId)) throw notFound('clip or criterion in this round');
      await store.ratings.upsert({ ...rating, listenerId: listener.id }, ['listenerId', 'letter', 'criterionId']);
      return context.json(rating);
    })
    .post('/:listener/finish', async (context) => {
      const { listener, round, letters } = await present(pathId(context, 'listener'));
      const rated = await store.ratings.countBy({ listenerId: listener.id });
      const wanted = letters.length * round.criterionIds.length;
      if (rated < wanted) throw new ApiError(422, 'incomplete', `${wanted - rated} of ${wanted} scores are still open. Score every clip, then finish.`);
      await store.listeners.update({ id: listener.id, finishedAtMs: IsNull() }, { finishedAtMs: Date.now() });
      return context.body(null, 204);
    });
}
