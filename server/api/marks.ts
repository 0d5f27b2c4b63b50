import { markDraftSchema } from '@marvet/core/domain/criterion';
import { Hono } from 'hono';
import { IsNull } from 'typeorm';
import type { Store } from '../store/store.ts';
import { notFound, pathId, readBody } from './http.ts';

/** Marks given by hand on inspected criteria, one a candidate and criterion. */
export function markRoutes(store: Store): Hono {
  return new Hono()
    .get('/', async (context) => context.json(await store.marks.findBy({ trialId: pathId(context, 'trial') })))
    .put('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const mark = await readBody(context, markDraftSchema);
      if (!(await store.chains.existsBy({ id: mark.chainId, trialId, binnedAtMs: IsNull() }))) throw notFound('chain');
      if (!(await store.criteria.existsBy({ id: mark.criterionId, trialId, kind: 'inspected', binnedAtMs: IsNull() }))) throw notFound('inspected criterion');
      const row = { ...mark, trialId };
      await store.marks.upsert(row, ['chainId', 'criterionId']);
      return context.json(row);
    });
}
