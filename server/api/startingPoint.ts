import { newId } from '@marvet/core/domain/identity';
import { STARTING_POINT_IDS, STARTING_POINTS } from '@marvet/core/domain/startingPoint';
import { startPlan } from '@marvet/core/plan/startPlan';
import { Hono } from 'hono';
import { z } from 'zod';
import { currentPlan } from '../store/planRecords.ts';
import type { Store } from '../store/store.ts';
import { present } from '../store/table.ts';
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
    await store.write(async (tables) => {
      const trial = await tables.trials.findOneBy({ id: trialId });
      if (!trial || !point) throw notFound('trial');
      if (await tables.takes.existsBy(present(trialId))) {
        throw new ApiError(409, 'has-takes', 'This trial has takes already: copy it, or start a new one from there');
      }
      const owned = { trialId, version: 1, binnedAtMs: null };
      await tables.criteria.update(present(trialId), { binnedAtMs: Date.now() });
      await tables.criteria.insert(point.criteria.map((criterion, position) => ({ ...criterion, ...owned, id: newId(), position })));
      const scripts = await tables.scripts.findBy(present(trialId));
      const fresh = point.scripts.filter((script) => !scripts.some((each) => each.name === script.name));
      if (fresh.length > 0) await tables.scripts.insert(fresh.map((script, index) => ({ ...script, ...owned, id: newId(), position: scripts.length + index })));
      const plan = await currentPlan(tables, trialId);
      await tables.plans.save({ ...plan, ...startPlan(plan, point), version: plan.version + 1 });
      await tables.trials.update(trialId, { question: trial.question || point.question, use: trial.use || point.use, version: trial.version + 1 });
    });
    return context.body(null, 204);
  });
}
