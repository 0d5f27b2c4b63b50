import { markDraftSchema } from '@marvet/core/domain/criterion';
import { Hono } from 'hono';
import type { Store } from '../store/store.ts';
import { present } from '../store/table.ts';
import { notFound, pathId, readBody } from './http.ts';

/** Marks given by hand on inspected criteria, one a candidate and criterion. */
export function markRoutes(store: Store): Hono {
  return new Hono()
    .get('/', async (context) => context.json(await store.marks.findBy({ trialId: pathId(context, 'trial') })))
    .put('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const mark = await readBody(context, markDraftSchema);
      const row = { ...mark, trialId };
      await store.write(async (tables) => {
        if (!(await tables.chains.existsBy({ id: mark.chainId, ...present(trialId) }))) throw notFound('chain');
        if (!(await tables.criteria.existsBy({ id: mark.criterionId, kind: 'inspected', ...present(trialId) }))) throw notFound('inspected criterion');
        await tables.marks.upsert(row, ['chainId', 'criterionId']);
      });
      return context.json(row);
    });
}
