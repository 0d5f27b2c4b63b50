import { randomBytes } from 'node:crypto';
import { isPaired, listenerDraftSchema } from '@marvet/core/domain/round';
import { answersFileSchema } from '@marvet/core/formats/answersFile';
import { LONGEST_WHOLE_S } from '@marvet/core/listen/clipForm';
import { lockedNames } from '@marvet/core/listen/lockedNames';
import { isWholeOrder } from '@marvet/core/listen/ranking';
import { layReel } from '@marvet/core/listen/reel';
import { reelPage } from '@marvet/core/listen/reelPage';
import { Hono } from 'hono';
import { reelFonts } from '../exchange/reelFonts.ts';
import { lettersS, reelZipParts, spokenLetters } from '../exchange/reelZip.ts';
import { zipped } from '../exchange/zipped.ts';
import type { ClipPlace } from '../jobs/tasks.ts';
import type { RoundRow } from '../store/records.ts';
import { In, IsNull } from '../store/table.ts';
import { clipSources } from './clipPieces.ts';
import { metRound, refuseClosed } from './heardRound.ts';
import { heardUnder } from './heardUnder.ts';
import { ApiError, notFound, pathId, readBody, savedAs } from './http.ts';
import { blindClips } from './listen.ts';
import { reelNames } from './reelNames.ts';
import { newSeat, presentRound } from './seats.ts';
import type { Services } from './services.ts';

const KEY_BYTES = 16;
/** What stands where nobody has said yet what they listened on. */
const NOT_SAID = 'what they have, told with the answers';
const GAP_S = 0.7;

/**
 * Listeners who get a page and listen where they are. The page has clips under letters, in an order of its own, and a form; names are
 * locked in it, and what opens them stays here until its answers were read in.
 */
export function awayRoutes(services: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  const { store } = services;
  return new Hono()
    .post('/:id/away', async (context) => {
      const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
      const { name } = await readBody(context, listenerDraftSchema.pick({ name: true }));
      const made = await store.write(async (tables) => {
        const round = await presentRound(tables, trialId, id);
        refusePaired(round);
        const row = { ...(await newSeat(tables, round, { name, listenedOn: NOT_SAID })), awayKey: randomBytes(KEY_BYTES).toString('hex') };
        await tables.listeners.insert(row);
        return { id: row.id };
      });
      return context.json(made, 201);
    })
    .get('/:id/away/:listener/page.zip', async (context) => {
      const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
      const { listener, round, letters } = await metRound(store, pathId(context, 'listener'));
      const { kind } = round;
      if (round.id !== id || round.trialId !== trialId || listener.awayKey === null || isPaired(kind)) throw notFound('page to send');
      refuseClosed(round);
      const criteria = await store.criteria.find({ where: { id: In(round.criterionIds) }, order: { position: 'ASC' } });
      const names = await reelNames(store, trialId, round.recordingIds);
      const heard = Object.entries(heardUnder(round, listener).letters).map(([letter, recordingId]) => [letter, names[round.recordingIds.indexOf(recordingId)] as string]);
      const page = reelPage({
        title: 'Blind listening',
        matchedLufs: round.matchedLufs,
        names: letters.map(() => ''),
        fonts: await reelFonts(),
        answers: {
          kind,
          listenerId: listener.id,
          listenerName: listener.name,
          clips: letters.length,
          criteria,
          locked: await lockedNames(Object.fromEntries(heard), listener.awayKey),
        },
      });
      const whole = await blindClips(services, { listener, round, letters });
      const together = { ...whole, lengthS: Math.min(whole.lengthS, LONGEST_WHOLE_S) };
      const { lengthS, heard: under, disguised } = together;
      const { sources, wide } = await clipSources(services, together);
      const clipAt = (place: number) =>
        services.work.clip(round.id, { ...(sources[under[place] as number] as ClipPlace), wide, disguise: disguised ? (letters[place] as string) : null });
      const reel = layReel(letters.length, lengthS, null, GAP_S, lettersS(spokenLetters(letters.length, round.matchedLufs)));
      const parts = await reelZipParts(reel, { names: letters, clipAt, matchedLufs: round.matchedLufs }, page);
      const zip = await zipped(parts);
      return new Response(zip.body, {
        headers: { 'Content-Type': 'application/zip', ...savedAs(`blind listening for ${listener.name}.zip`), 'Content-Length': String(zip.sizeBytes) },
      });
    })
    .post('/:id/answers', async (context) => {
      const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
      const { listenerId, listenedOn, ratings, orders } = await readBody(context, answersFileSchema);
      const name = await store.write(async (tables) => {
        const round = await presentRound(tables, trialId, id);
        const seat = await tables.listeners.findOneBy({ id: listenerId, roundId: id, binnedAtMs: IsNull() });
        if (!seat || seat.awayKey === null)
          throw new ApiError(404, 'not-here', 'These answers belong to no page of this round. Read them in at the round that the page was made for.');
        if (seat.finishedAtMs !== null) throw new ApiError(409, 'finished', `The answers of ${seat.name} were read in already, and stay as they are`);
        refuseClosed(round);
        const { letters } = await metRound(tables, listenerId);
        if (!isComplete(round, letters, { ratings, orders }))
          throw new ApiError(
            422,
            'incomplete',
            `The file does not hold one answer for each of ${letters.join(', ')} on each criterion of this round. Ask ${seat.name} to save it once more.`,
          );
        if (ratings.length > 0) await tables.ratings.insert(ratings.map((rating) => ({ ...rating, listenerId })));
        await tables.listeners.update({ id: listenerId }, { listenedOn, orders, finishedAtMs: Date.now() });
        return seat.name;
      });
      return context.json({ name });
    });
}

/** @throws ApiError 422 where a round is heard in comparisons */
function refusePaired({ kind }: RoundRow): void {
  if (isPaired(kind))
    throw new ApiError(
      422,
      'compared',
      'Comparisons are laid out one after the other here, and cannot be sent as a page: let people listen through the door for other devices, or give points',
      {
        kind: 'Cannot be sent',
      },
    );
}

/** Whether there is one answer for each clip on each criterion, and no other. */
function isComplete(
  { kind, criterionIds }: RoundRow,
  letters: readonly string[],
  { ratings, orders }: { ratings: { letter: string; criterionId: string }[]; orders: Record<string, string[][]> },
): boolean {
  if (kind === 'ranked') {
    const given = Object.keys(orders);
    return ratings.length === 0 && given.length === criterionIds.length && criterionIds.every((criterionId) => orders[criterionId] && isWholeOrder(orders[criterionId], letters));
  }
  const keys = new Set(ratings.map(({ letter, criterionId }) => `${letter} ${criterionId}`));
  return (
    Object.keys(orders).length === 0 &&
    ratings.length === letters.length * criterionIds.length &&
    criterionIds.every((criterionId) => letters.every((letter) => keys.has(`${letter} ${criterionId}`)))
  );
}
