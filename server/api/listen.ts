import { type BlindRound, guessDraftSchema, isPaired, rankingDraftSchema, ratingDraftSchema } from '@marvet/core/domain/round';
import { placeOfLetter } from '@marvet/core/listen/blindOrder';
import { worseSections } from '@marvet/core/listen/clipTone';
import { heardAt } from '@marvet/core/listen/hiddenChecks';
import { isWholeOrder } from '@marvet/core/listen/ranking';
import { Hono } from 'hono';
import type { ListenerRow, RoundRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { In, IsNull } from '../store/table.ts';
import { type HeardClip, type HeardTogether, pieceAnswer } from './clipPieces.ts';
import { answeredBy, nextOf } from './comparing.ts';
import { guessedAmong, isGuessable } from './guessing.ts';
import { cutOf, type Met, metRound, refuseClosed } from './heardRound.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

/**
 * What a listener's page may ask before the listener is done. Nothing here names a recording, a file,
 * a take or a candidate; clips are alike in length, form and headers.
 */
export function listenRoutes({ store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  return new Hono()
    .get('/:listener', async (context) => {
      const { listener, round, letters } = await metRound(store, pathId(context, 'listener'));
      const criteria = await store.criteria.find({ where: { id: In(round.criterionIds) }, order: { position: 'ASC' } });
      const ratings = await store.ratings.findBy({ listenerId: listener.id });
      const blind: BlindRound = {
        listenerId: listener.id,
        listenerName: listener.name,
        listenedOn: listener.listenedOn,
        title: round.title,
        kind: round.kind,
        next: isPaired(round.kind) ? nextOf({ listener, letters }, await answeredBy(store, listener)) : null,
        comparisons: round.comparisons === null ? null : (listener.comparisons?.length ?? null),
        letters,
        matchedLufs: round.matchedLufs,
        targetLufs: round.targetLufs,
        criteria: criteria.map(({ id, name, remark, best, worst, worstWords, bestWords }) => ({ id, name, remark, best, worst, worstWords, bestWords })),
        orders: listener.orders,
        ratings: ratings.map(({ letter, criterionId, points, reason }) => ({ letter, criterionId, points, reason })),
        guessable: await isGuessable(store, round),
        guess: listener.closedAtMs === null ? null : await guessedAmong(store, round),
        opens: round.opens,
        finished: listener.finishedAtMs !== null,
        closed: round.closedAtMs !== null,
      };
      return context.json(blind);
    })
    .get('/:listener/pieces/:piece', async (context) => {
      const met = await metRound(store, pathId(context, 'listener'));
      // Of a round that is compared, the clips of one comparison come together.
      if (isPaired(met.round.kind)) throw notFound('clip');
      return pieceAnswer({ store, blobs, work }, context, await blindClips({ store, blobs, work }, met));
    })
    .put('/:listener/ratings', async (context) => {
      const id = pathId(context, 'listener');
      const rating = await readBody(context, ratingDraftSchema);
      await store.write(async (tables) => {
        const { listener, round, letters } = await metRound(tables, id);
        refuseClosed(round);
        refuseFinished(listener);
        if (listener.closedAtMs !== null) throw new ApiError(409, 'closed', 'The scores are closed, since the candidates are named: they can no longer change');
        if (round.kind !== 'scores' || !letters.includes(rating.letter) || !round.criterionIds.includes(rating.criterionId)) throw notFound('clip or criterion in this round');
        await tables.ratings.upsert({ ...rating, listenerId: listener.id }, ['listenerId', 'letter', 'criterionId']);
      });
      return context.json(rating);
    })
    .put('/:listener/orders', async (context) => {
      const id = pathId(context, 'listener');
      const { criterionId, order } = await readBody(context, rankingDraftSchema);
      await store.write(async (tables) => {
        const { listener, round, letters } = await metRound(tables, id);
        refuseClosed(round);
        refuseFinished(listener);
        if (round.kind !== 'ranked' || !round.criterionIds.includes(criterionId)) throw notFound('criterion in this round');
        if (!isWholeOrder(order, letters)) throw new ApiError(422, 'invalid', `Put ${letters.join(', ')} in order, each once`, { order: 'Each clip once' });
        await tables.listeners.update({ id }, { orders: { ...listener.orders, [criterionId]: order } });
      });
      return context.body(null, 204);
    })
    .post('/:listener/close', async (context) => {
      const id = pathId(context, 'listener');
      await store.write(async (tables) => {
        const met = await metRound(tables, id);
        refuseClosed(met.round);
        await refuseUnscored(tables, met);
        if (!(await isGuessable(tables, met.round))) throw new ApiError(409, 'not-guessable', 'In this round it cannot be guessed which is which: some clips are of one candidate');
        await tables.listeners.update({ id, closedAtMs: IsNull() }, { closedAtMs: Date.now() });
      });
      return context.body(null, 204);
    })
    .put('/:listener/guess', async (context) => {
      const id = pathId(context, 'listener');
      const { candidateIds } = await readBody(context, guessDraftSchema);
      await store.write(async (tables) => {
        const { listener, round, letters } = await metRound(tables, id);
        refuseClosed(round);
        if (listener.finishedAtMs !== null) throw new ApiError(409, 'finished', 'This round is finished and its identities are open: a guess can no longer change');
        if (listener.closedAtMs === null) throw new ApiError(409, 'open', 'Close the scores first, then guess: the candidates are named only then');
        if (round.checks.length > 0) throw new ApiError(409, 'not-guessable', 'Some of these clips were hidden checks: there is nothing to guess. Finish.');
        const wanted = (await guessedAmong(tables, round)).map((each) => each.id).sort();
        const guessed = letters.flatMap((letter) => candidateIds[letter] ?? []).sort();
        if (String(wanted) !== String(guessed))
          throw new ApiError(422, 'invalid', 'Each clip is taken for one candidate, and each candidate for one clip', { candidateIds: 'Each once' });
        await tables.listeners.update({ id }, { guess: candidateIds });
      });
      return context.body(null, 204);
    })
    .post('/:listener/finish', async (context) => {
      const id = pathId(context, 'listener');
      await store.write(async (tables) => {
        const met = await metRound(tables, id);
        refuseClosed(met.round);
        await refuseUnfinished(tables, met);
        await tables.listeners.update({ id, finishedAtMs: IsNull() }, { finishedAtMs: Date.now() });
      });
      return context.body(null, 204);
    });
}

/** The clips of a round as a listener hears them: every recording once, and the one that is made worse on purpose. */
export async function blindClips(services: Pick<Services, 'store' | 'blobs' | 'work'>, { listener, round, letters }: Met): Promise<HeardTogether> {
  const { starts, lengthS } = await cutOf(services, round);
  const clips = round.recordingIds.map((recordingId, of): HeardClip => ({ recordingId, startS: starts[of] as number, gainDb: round.gainsDb[of] ?? 0 }));
  const heard = letters.map((letter) => {
    const { of, check } = heardAt(round, placeOfLetter(listener.order, letter) ?? -1) as NonNullable<ReturnType<typeof heardAt>>;
    return check === 'worse' ? clips.push({ ...(clips[of] as HeardClip), toned: { sections: worseSections() } }) - 1 : of;
  });
  return { trialId: round.trialId, subjectId: round.id, clips, heard, lengthS, disguised: round.checks.length > 0 };
}

/** @throws ApiError 409 where the listener is done */
function refuseFinished({ finishedAtMs }: Pick<ListenerRow, 'finishedAtMs'>): void {
  if (finishedAtMs !== null) throw new ApiError(409, 'finished', 'This round is finished and its identities are open: scores can no longer change');
}

/** @throws ApiError 422 where something is not judged yet */
async function refuseUnfinished(tables: Pick<ReadTables, 'ratings' | 'choices'>, met: Met): Promise<void> {
  const { listener, round } = met;
  if (isPaired(round.kind)) return refuseUnanswered(tables, listener, round);
  if (round.kind === 'scores') return refuseUnscored(tables, met);
  const open = round.criterionIds.filter((id) => !listener.orders[id]).length;
  if (open > 0) throw new ApiError(422, 'incomplete', `On ${open} of ${round.criterionIds.length} criteria the clips are not in order yet. Put them in order, then finish.`);
}

/** @throws ApiError 422 where scores are open */
async function refuseUnscored(tables: Pick<ReadTables, 'ratings'>, { listener, round, letters }: Met): Promise<void> {
  const rated = await tables.ratings.countBy({ listenerId: listener.id });
  const wanted = letters.length * round.criterionIds.length;
  if (rated < wanted) throw new ApiError(422, 'incomplete', `${wanted - rated} of ${wanted} scores are still open. Score every clip, then finish.`);
}

/** @throws ApiError 422 where comparisons are open, or none was answered */
async function refuseUnanswered(tables: Pick<ReadTables, 'choices'>, listener: ListenerRow, round: RoundRow): Promise<void> {
  const done = await answeredBy(tables, listener);
  const wanted = round.comparisons === null ? 1 : (listener.comparisons?.length ?? 0);
  if (done < wanted) throw new ApiError(422, 'incomplete', `${wanted - done} of ${wanted} comparisons are still open. Answer them, then finish.`);
}
