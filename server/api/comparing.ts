import { type ChoiceDraft, choiceDraftSchema } from '@marvet/core/domain/round';
import { Hono } from 'hono';
import { z } from 'zod';
import type { ListenerRow } from '../store/records.ts';
import type { ReadTables } from '../store/store.ts';
import { pieceAnswer } from './clipPieces.ts';
import { cutOf, type Met, metRound, refuseClosed } from './heardRound.ts';
import { ApiError, notFound, parsed, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

const numberSchema = z.coerce.number({ error: 'A comparison has a number' }).int('A comparison has a number').min(0, 'Comparisons are counted from 0');

/** The comparison that is next for a listener; null where there is none. */
export function nextOf({ listener, letters }: Pick<Met, 'listener' | 'letters'>, done: number): { number: number; letters: string[] } | null {
  return listener.finishedAtMs === null && done < (listener.comparisons?.length ?? 0) ? { number: done, letters } : null;
}

/** How many comparisons a listener has answered. */
export const answeredBy = (from: Pick<ReadTables, 'choices'>, { id }: Pick<ListenerRow, 'id'>): Promise<number> => from.choices.countBy({ listenerId: id });

/** Comparisons of two or three clips at a time, one after the other. */
export function comparingRoutes(services: Pick<Services, 'store' | 'blobs' | 'work'>): Hono {
  const { store } = services;
  return new Hono()
    .get('/:listener/comparisons/:number/pieces/:piece', async (context) => {
      const met = await metRound(store, pathId(context, 'listener'));
      const number = parsed(numberSchema, context.req.param('number'));
      const places = met.listener.comparisons?.[number];
      if (!places || nextOf(met, await answeredBy(store, met.listener))?.number !== number) throw notFound('comparison that is open');
      const { round } = met;
      const { starts, lengthS } = await cutOf(services, round);
      // Each recording is cut once, in an order of their own: it takes as long whichever is heard twice.
      const made = [...new Set(places)].sort((a, b) => a - b);
      const clips = made.map((place) => ({ recordingId: round.recordingIds[place] as string, startS: starts[place] as number, gainDb: round.gainsDb[place] ?? 0 }));
      const heard = places.map((place) => made.indexOf(place));
      return pieceAnswer(services, context, { trialId: round.trialId, subjectId: round.id, clips, heard, lengthS, disguised: true });
    })
    .put('/:listener/comparisons/:number', async (context) => {
      const id = pathId(context, 'listener');
      const number = parsed(numberSchema, context.req.param('number'));
      const choice = await readBody(context, choiceDraftSchema);
      await store.write(async (tables) => {
        const met = await metRound(tables, id);
        refuseClosed(met.round);
        const known = await tables.choices.findOneBy({ listenerId: id, number });
        // Sent twice it is one answer; what was answered stays, since the next one was heard after it.
        if (known && JSON.stringify(known.picks) === JSON.stringify(choice.picks)) return;
        if (known) throw new ApiError(409, 'answered', 'This comparison is answered already, and stays as it is. Go on with the next one.');
        if (nextOf(met, await answeredBy(tables, met.listener))?.number !== number)
          throw new ApiError(409, 'not-next', 'This comparison is not the next one. Reload the page to go on where you were.');
        refuseStrange(met, choice);
        await tables.choices.insert({ listenerId: id, number, picks: choice.picks, atMs: Date.now() });
      });
      return context.body(null, 204);
    });
}

/** @throws ApiError 422 where a letter is none of the comparison, or a criterion is not answered, or none of the round */
function refuseStrange({ round, letters }: Met, { picks }: ChoiceDraft): void {
  const wanted: (string | null)[] = round.kind === 'better' ? round.criterionIds : [null];
  // X is named by what it is, not by itself.
  const named = round.kind === 'odd' ? letters : letters.slice(0, 2);
  const all = wanted.every((criterionId) => picks.filter((pick) => pick.criterionId === criterionId).length === 1);
  if (all && picks.length === wanted.length && picks.every(({ letter }) => named.includes(letter))) return;
  throw new ApiError(422, 'invalid', `Choose one of ${named.join(', ')}${wanted.length > 1 ? ' on each criterion' : ''}`, { picks: 'Not all is chosen' });
}
