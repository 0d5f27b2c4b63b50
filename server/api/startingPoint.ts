import { newId } from '@marvet/core/domain/identity';
import { STARTING_POINT_IDS, STARTING_POINTS } from '@marvet/core/domain/startingPoint';
import { startPlan } from '@marvet/core/plan/startPlan';
import { Hono } from 'hono';
import { IsNull } from 'typeorm';
import { z } from 'zod';
import { currentPlan } from '../store/planRecords.ts';
import type { Store } from '../store/store.ts';
import { ApiError, notFound, pathId, readBody } from './http.ts';

const startSchema = z.object({ id: z.enum(STARTING_POINT_IDS, { error: 'There is no such starting point' }) });

/**
 * Gives a trial the criteria, scripts, factors and controls of a common question. Criteria that it had
 * go to the bin; scripts and levels stay. Not once takes exist: they were made for another question.
 */
export function startingPointRoutes(store: Store): Hono {
  return new Hono().post('/', async (context) => {
    const trialId = pathId(context, 'trial');
    const { id } = await readBody(context, startSchema);
    const point = STARTING_POINTS.find((each) => each.id === id);
    const trial = await store.trials.findOneBy({ id: trialId });
    if (!trial || !point) throw notFound('trial');
    if (await store.takes.existsBy({ trialId, binnedAtMs: IsNull() })) {
      throw new ApiError(409, 'has-takes', 'This trial has takes already: copy it, or start a new one from there');
    }
    await store.transaction(async (tables) => {
      const owned = { trialId, binnedAtMs: null };
      await tables.criteria.update({ trialId, binnedAtMs: IsNull() }, { binnedAtMs: Date.now() });
      await tables.criteria.insert(point.criteria.map((criterion, position) => ({ ...criterion, ...owned, id: newId(), position })));
      const scripts = await tables.scripts.findBy({ trialId, binnedAtMs: IsNull() });
      const fresh = point.scripts.filter((script) => !scripts.some((each) => each.name === script.name));
      await tables.scripts.insert(fresh.map((script, index) => ({ ...script, ...owned, id: newId(), position: scripts.length + index })));
      const plan = await currentPlan(tables, trialId);
      await tables.plans.save({ ...plan, ...startPlan(plan, point) });
      await tables.trials.update(trialId, { question: trial.question || point.question, use: trial.use || point.use });
    });
    return context.body(null, 204);
  });
}
