import { randomInt } from 'node:crypto';
import { newId } from '@marvet/core/domain/identity';
import { type Listener, listenerDraftSchema, type Round, roundDraftSchema } from '@marvet/core/domain/round';
import { nextOrder } from '@marvet/core/listen/balancedOrder';
import { BLIND_LETTERS } from '@marvet/core/listen/blindOrder';
import { heardAt } from '@marvet/core/listen/hiddenChecks';
import { betterComparisons, oddComparisons, sameComparisons } from '@marvet/core/listen/paired/sequence';
import { Hono } from 'hono';
import type { ListenerRow, RoundRow, Row } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { In, IsNull, inParts, present } from '../store/table.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';
import { matchedClips } from './roundCuts.ts';
import type { Services } from './services.ts';

const UNIFORM_STEPS = 2 ** 32;
const thrown = () => randomInt(UNIFORM_STEPS) / UNIFORM_STEPS;

/** What one listener compares, in an order of their own; null where points are given. */
function comparisonsOf({ kind, recordingIds, comparisons }: RoundRow): number[][] | null {
  switch (kind) {
    case 'scores':
      return null;
    case 'same':
      return sameComparisons(comparisons, thrown);
    case 'odd':
      return oddComparisons(comparisons, thrown);
    case 'better':
      return betterComparisons(recordingIds.length, comparisons, thrown);
  }
}

/**
 * A listener as anyone may see it: which letter was what, and the scores, only once the listener is done.
 * Nobody sees those of others either while a listener of the round is still at it, since they might be the same person.
 */
function shownListener(round: RoundRow, row: ListenerRow, ratings: readonly Row<'ratings'>[], choices: readonly Row<'choices'>[], open: boolean): Listener {
  const done = row.finishedAtMs !== null && open;
  const heardUnder = row.order.flatMap((place, index) => {
    const heard = heardAt(round, place);
    return heard ? [{ letter: BLIND_LETTERS[index] as string, ...heard }] : [];
  });
  const letters = Object.fromEntries(heardUnder.map(({ letter, of }) => [letter, round.recordingIds[of] as string]));
  const answered = choices.filter((choice) => choice.listenerId === row.id).sort((a, b) => a.number - b.number);
  const heard = answered.map(({ number, picks }) => ({ picks, recordingIds: (row.comparisons?.[number] ?? []).map((place) => round.recordingIds[place] as string) }));
  const { id, roundId, name, listenedOn, sample, finishedAtMs } = row;
  return {
    ...{ id, roundId, name, listenedOn, sample, finishedAtMs },
    letters: done ? letters : null,
    checks: done ? Object.fromEntries(heardUnder.flatMap(({ letter, check }) => (check ? [[letter, check]] : []))) : {},
    ratings: done ? ratings.filter((rating) => rating.listenerId === row.id) : [],
    guess: done ? row.guess : null,
    scored: [ratings.filter((rating) => rating.listenerId === row.id).length, round.kind === 'scores' ? row.order.length * round.criterionIds.length : 0],
    compared: [answered.length, round.comparisons === null ? null : (row.comparisons?.length ?? null)],
    choices: done ? heard : [],
  };
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
  async function presentRound(from: Pick<ReadTables, 'rounds'>, trialId: string, id: string): Promise<RoundRow> {
    const row = await from.rounds.findOneBy({ id, ...present(trialId) });
    if (!row) throw notFound('listening round');
    return row;
  }

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
          if (round.closedAtMs !== null) throw new ApiError(409, 'closed', 'This round is closed and its identities are open: make a new one to go on listening blind');
          const others = await tables.listeners.find({ where: { roundId: id, binnedAtMs: IsNull() }, order: { createdAtMs: 'ASC' } });
          const orders = others.map(({ order }) => order);
          const row: ListenerRow = {
            ...draft,
            id: newId(),
            roundId: round.id,
            sample: false,
            createdAtMs: Date.now(),
            finishedAtMs: null,
            closedAtMs: null,
            guess: null,
            binnedAtMs: null,
            order: round.kind === 'scores' ? nextOrder(round.recordingIds.length + round.checks.length, orders, thrown) : [],
            comparisons: comparisonsOf(round),
          };
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
