import { randomInt } from 'node:crypto';
import { newId } from '@marvet/core/domain/identity';
import { type Listener, listenerDraftSchema, type Round, roundDraftSchema } from '@marvet/core/domain/round';
import { BLIND_LETTERS, blindOrder } from '@marvet/core/listen/blindOrder';
import { levelMatch } from '@marvet/core/listen/levelMatch';
import { Hono } from 'hono';
import { In, IsNull } from 'typeorm';
import type { ListenerRow, RoundRow } from '../store/rows.ts';
import type { Store } from '../store/store.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';

const UNIFORM_STEPS = 2 ** 32;

/** A listener as anyone may see it: which letter was what, and the scores, only once the listener is done. */
export async function shownListener(store: Store, round: RoundRow, row: ListenerRow): Promise<Listener> {
  const done = row.finishedAtMs !== null;
  const letters = Object.fromEntries(row.order.map((place, index) => [BLIND_LETTERS[index], round.recordingIds[place]]));
  return {
    id: row.id,
    roundId: row.roundId,
    name: row.name,
    listenedOn: row.listenedOn,
    sample: row.sample,
    finishedAtMs: row.finishedAtMs,
    letters: done ? (letters as Record<string, string>) : null,
    ratings: done ? await store.ratings.findBy({ listenerId: row.id }) : [],
  };
}

async function shown(store: Store, row: RoundRow): Promise<Round> {
  const listeners = await store.listeners.find({ where: { roundId: row.id, binnedAtMs: IsNull() }, order: { createdAtMs: 'ASC' } });
  const { gainsDb: _gains, binnedAtMs: _binned, ...rest } = row;
  return { ...rest, listeners: await Promise.all(listeners.map((listener) => shownListener(store, row, listener))) };
}

/** Listening rounds of a trial, and the people who take part. */
export function roundRoutes(store: Store): Hono {
  async function present(trialId: string, id: string): Promise<RoundRow> {
    const row = await store.rounds.findOneBy({ id, trialId, binnedAtMs: IsNull() });
    if (!row) throw notFound('listening round');
    return row;
  }

  return new Hono()
    .get('/', async (context) => {
      const rows = await store.rounds.find({ where: { trialId: pathId(context, 'trial'), binnedAtMs: IsNull() }, order: { createdAtMs: 'ASC' } });
      return context.json(await Promise.all(rows.map((row) => shown(store, row))));
    })
    .post('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const draft = await readBody(context, roundDraftSchema);
      const criteria = await store.criteria.findBy({ id: In(draft.criterionIds), trialId, kind: 'listened', binnedAtMs: IsNull() });
      if (criteria.length !== draft.criterionIds.length)
        throw new ApiError(422, 'invalid', 'Choose listened criteria of this trial', { criterionIds: 'Choose listened criteria of this trial' });
      const recordings = await store.recordings.findBy({ id: In(draft.recordingIds), trialId });
      const clips = draft.recordingIds.map((id) => {
        const report = recordings.find((recording) => recording.id === id)?.report;
        const { integratedLufs, truePeakDbtp } = { ...report?.loudness, ...report?.levels };
        if (integratedLufs == null || truePeakDbtp == null) {
          throw new ApiError(422, 'not-measured', 'A recording has no loudness, so it cannot be level-matched. Wait until it is measured, or leave it out.', {
            recordingIds: 'One of them has no loudness',
          });
        }
        return { integratedLufs, truePeakDbtp };
      });
      const match = levelMatch(clips, draft.targetLufs, draft.ceilingDbtp);
      const row: RoundRow = {
        ...draft,
        id: newId(),
        trialId,
        sample: false,
        createdAtMs: Date.now(),
        matchedLufs: match.matchedLufs,
        gainsDb: match.gainsDb,
        binnedAtMs: null,
      };
      await store.rounds.insert(row);
      return context.json(await shown(store, row), 201);
    })
    .delete('/:id', async (context) => {
      const row = await present(pathId(context, 'trial'), pathId(context, 'id'));
      await store.rounds.update(row.id, { binnedAtMs: Date.now() });
      return context.body(null, 204);
    })
    .post('/:id/listeners', async (context) => {
      const round = await present(pathId(context, 'trial'), pathId(context, 'id'));
      const draft = await readBody(context, listenerDraftSchema);
      const row: ListenerRow = {
        ...draft,
        id: newId(),
        roundId: round.id,
        sample: false,
        createdAtMs: Date.now(),
        finishedAtMs: null,
        binnedAtMs: null,
        order: blindOrder(round.recordingIds.length, () => randomInt(UNIFORM_STEPS) / UNIFORM_STEPS),
      };
      await store.listeners.insert(row);
      return context.json(await shownListener(store, round, row), 201);
    })
    .delete('/:id/listeners/:listener', async (context) => {
      const round = await present(pathId(context, 'trial'), pathId(context, 'id'));
      const { affected } = await store.listeners.update({ id: pathId(context, 'listener'), roundId: round.id, binnedAtMs: IsNull() }, { binnedAtMs: Date.now() });
      if (!affected) throw notFound('listener');
      return context.body(null, 204);
    });
}
