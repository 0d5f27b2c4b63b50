import { randomInt } from 'node:crypto';
import { newId } from '@marvet/core/domain/identity';
import { isPaired, type Listener, listenerDraftSchema, type Round, roundDraftSchema } from '@marvet/core/domain/round';
import { Hono } from 'hono';
import type { ListenerRow, RoundRow, Row } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { In, IsNull, inParts, present } from '../store/table.ts';
import { heardUnder } from './heardUnder.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import { matchedClips } from './roundCuts.ts';
import { newSeat, presentRound } from './seats.ts';
import type { Services } from './services.ts';

/**
 * A listener as anyone may see it: which letter was what, and the scores, only once the listener is done.
 * Nobody sees those of others either while a listener of the round is still at it, since they might be the same person.
 */
export function shownListener(round: RoundRow, row: ListenerRow, ratings: readonly Row<'ratings'>[], choices: readonly Row<'choices'>[], open: boolean): Listener {
  const done = row.finishedAtMs !== null && open;
  const { letters, checks } = heardUnder(round, row);
  const answered = choices.filter((choice) => choice.listenerId === row.id).sort((a, b) => a.number - b.number);
  const heard = answered.map(({ number, picks }) => ({ picks, recordingIds: (row.comparisons?.[number] ?? []).map((place) => round.recordingIds[place] as string) }));
  const { id, roundId, name, listenedOn, sample, finishedAtMs } = row;
  return {
    ...{ id, roundId, name, listenedOn, sample, finishedAtMs },
    letters: done ? letters : null,
    checks: done ? checks : {},
    ratings: done ? ratings.filter((rating) => rating.listenerId === row.id) : [],
    guess: done ? row.guess : null,
    orders: done ? row.orders : {},
    away: row.awayKey !== null,
    awayKey: done ? row.awayKey : null,
    scored: scoredOf(round, row, ratings),
    compared: [answered.length, round.comparisons === null ? null : (row.comparisons?.length ?? null)],
    choices: done ? heard : [],
  };
}

/** How many scores, or orders, a listener gave, of how many. */
function scoredOf({ kind, criterionIds }: RoundRow, row: ListenerRow, ratings: readonly Row<'ratings'>[]): [number, number] {
  if (kind === 'ranked') return [Object.keys(row.orders).length, criterionIds.length];
  return [ratings.filter((rating) => rating.listenerId === row.id).length, isPaired(kind) ? 0 : row.order.length * criterionIds.length];
}

function shownRound(row: RoundRow, listeners: readonly ListenerRow[], ratings: readonly Row<'ratings'>[], choices: readonly Row<'choices'>[]): Round {
  const { gainsDb: _gains, binnedAtMs: _binned, checkOf: _checkOf, cuts, lengthS: _length, ...rest } = row;
  const open = row.opens === 'closed' ? row.closedAtMs !== null : listeners.every((listener) => listener.finishedAtMs !== null);
  return { ...rest, delaysMs: cuts?.map((cut) => cut.delayMs) ?? null, listeners: listeners.map((listener) => shownListener(row, listener, ratings, choices, open)) };
}

/** Rounds with their listeners, scores and choices, in four queries however many there are. */
async function shownRounds(store: ReadTables, rows: readonly RoundRow[]): Promise<Round[]> {
  const listeners = await inParts(
    rows.map((row) => row.id),
    (part) => store.listeners.find({ where: { roundId: part, binnedAtMs: IsNull() }, order: { createdAtMs: 'ASC' } }),
  );
  const ratings = await inParts(
    listeners.map((listener) => listener.id),
    (part) => store.ratings.findBy({ listenerId: part }),
  );
  const choices = await inParts(
    listeners.map((listener) => listener.id),
    (part) => store.choices.findBy({ listenerId: part }),
  );
  return rows.map((row) =>
    shownRound(
      row,
      listeners.filter((listener) => listener.roundId === row.id),
      ratings,
      choices,
    ),
  );
}

/** Listening rounds of a trial, and the people who take part. */
export function roundRoutes({ store, blobs, work }: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  return (
    new Hono()
      .get('/', async (context) => {
        const rows = await store.rounds.find({ where: present(pathId(context, 'trial')), order: { createdAtMs: 'ASC' } });
        return context.json(await shownRounds(store, rows));
      })
      .post('/', async (context) => {
        const trialId = pathId(context, 'trial');
        const draft = await readBody(context, roundDraftSchema);
        const criteria = await store.criteria.findBy({ id: In(draft.criterionIds), kind: 'listened', ...present(trialId) });
        if (criteria.length !== draft.criterionIds.length)
          throw new ApiError(422, 'invalid', 'Choose listened criteria of this trial', { criterionIds: 'Choose listened criteria of this trial' });
        const matched = await matchedClips({ store, blobs, work }, trialId, draft);
        const row: RoundRow = {
          ...draft,
          id: newId(),
          trialId,
          sample: false,
          createdAtMs: Date.now(),
          ...matched,
          closedAtMs: null,
          checkOf: draft.checks.map(() => randomInt(draft.recordingIds.length)),
          binnedAtMs: null,
        };
        await store.write((tables) => tables.rounds.insert(row));
        return context.json(shownRound(row, [], [], []), 201);
      })
      .delete('/:id', async (context) => {
        const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
        await store.write(async (tables) => {
          await presentRound(tables, trialId, id);
          await tables.rounds.update(id, { binnedAtMs: Date.now() });
        });
        return context.body(null, 204);
      })
      /** Closes a round that opens by hand: nobody scores in it any more, and its identities open. */
      .post('/:id/close', async (context) => {
        const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
        await store.write(async (tables) => {
          const round = await presentRound(tables, trialId, id);
          if (round.opens !== 'closed') throw new ApiError(409, 'not-by-hand', 'This round opens by itself, once each listener is done');
          await tables.rounds.update({ id, closedAtMs: IsNull() }, { closedAtMs: Date.now() });
        });
        return context.body(null, 204);
      })
      .post('/:id/listeners', async (context) => {
        const [trialId, id] = [pathId(context, 'trial'), pathId(context, 'id')];
        const draft = await readBody(context, listenerDraftSchema);
        const answer = await store.write(async (tables) => {
          const round = await presentRound(tables, trialId, id);
          const row = await newSeat(tables, round, draft);
          await tables.listeners.insert(row);
          return shownListener(round, row, [], [], false);
        });
        return context.json(answer, 201);
      })
      .delete('/:id/listeners/:listener', async (context) => {
        const round = await presentRound(store, pathId(context, 'trial'), pathId(context, 'id'));
        const where = { id: pathId(context, 'listener'), roundId: round.id, binnedAtMs: IsNull() };
        const { affected } = await store.write((tables) => tables.listeners.update(where, { binnedAtMs: Date.now() }));
        if (!affected) throw notFound('listener');
        return context.body(null, 204);
      })
  );
}
