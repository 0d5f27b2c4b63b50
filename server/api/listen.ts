import { type BlindRound, ratingDraftSchema } from '@marvet/core/domain/round';
import { BLIND_LETTERS, placeOfLetter } from '@marvet/core/listen/blindOrder';
import { Hono } from 'hono';
import type { RoundRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { In, IsNull } from '../store/table.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import { anyStereo, clipOf, sourcesOf } from './roundCuts.ts';
import type { Services } from './services.ts';

/**
 * What a listener's page may ask before the listener is done. Nothing here names a recording, a file,
 * a take or a candidate; clips are alike in length, form and headers.
 */
export function listenRoutes({ store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  async function present(from: Pick<ReadTables, 'listeners' | 'rounds'>, id: string) {
    const listener = await from.listeners.findOneBy({ id, binnedAtMs: IsNull() });
    const round = listener && (await from.rounds.findOneBy({ id: listener.roundId, binnedAtMs: IsNull() }));
    if (!listener || !round) throw notFound('listening round');
    return { listener, round, letters: BLIND_LETTERS.slice(0, round.recordingIds.length) };
  }

  /** Where each clip of a round lies. Rounds of before clips were aligned are cut when they are first heard. */
  async function cutOf(round: RoundRow): Promise<{ starts: number[]; lengthS: number }> {
    if (round.cuts && round.lengthS !== null) return { starts: round.cuts.map((cut) => cut.startS), lengthS: round.lengthS };
    const { cuts, lengthS } = await work.cut(round.trialId, { sources: await sourcesOf(store, blobs, round.trialId, round.recordingIds) });
    const kept = cuts.map(({ startS, delayMs }) => ({ startS, delayMs }));
    await store.write((tables) => tables.rounds.update(round.id, { cuts: kept, lengthS }));
    return { starts: kept.map((cut) => cut.startS), lengthS };
  }

  return new Hono()
    .get('/:listener', async (context) => {
      const { listener, round, letters } = await present(store, pathId(context, 'listener'));
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
      const { listener, round } = await present(store, pathId(context, 'listener'));
      const place = placeOfLetter(listener.order, context.req.param('letter'));
      if (place === undefined) throw notFound('clip');
      const { starts, lengthS } = await cutOf(round);
      const where = { id: round.recordingIds[place] as string, trialId: round.trialId };
      const heard = { startS: starts[place] as number, lengthS, gainDb: round.gainsDb[place] ?? 0 };
      const clip = await clipOf({ store, blobs, work }, where, round.id, heard, await anyStereo(store, round.recordingIds));
      return context.body(clip, 200, { 'Content-Type': 'audio/wav', 'Cache-Control': 'no-store' });
    })
    .put('/:listener/ratings', async (context) => {
      const id = pathId(context, 'listener');
      const rating = await readBody(context, ratingDraftSchema);
      await store.write(async (tables) => {
        const { listener, round, letters } = await present(tables, id);
        if (listener.finishedAtMs !== null) throw new ApiError(409, 'finished', 'This round is finished and its identities are open: scores can no longer change');
        if (!letters.includes(rating.letter) || !round.criterionIds.includes(rating.criterionId)) throw notFound('clip or criterion in this round');
        await tables.ratings.upsert({ ...rating, listenerId: listener.id }, ['listenerId', 'letter', 'criterionId']);
      });
      return context.json(rating);
    })
    .post('/:listener/finish', async (context) => {
      const id = pathId(context, 'listener');
      await store.write(async (tables) => {
        const { listener, round, letters } = await present(tables, id);
        const rated = await tables.ratings.countBy({ listenerId: listener.id });
        const wanted = letters.length * round.criterionIds.length;
        if (rated < wanted) throw new ApiError(422, 'incomplete', `${wanted - rated} of ${wanted} scores are still open. Score every clip, then finish.`);
        await tables.listeners.update({ id: listener.id, finishedAtMs: IsNull() }, { finishedAtMs: Date.now() });
      });
      return context.body(null, 204);
    });
}
