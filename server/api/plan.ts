import { planDraftSchema } from '@marvet/core/domain/plan';
import { factorsWithoutLevel, matrixSetups } from '@marvet/core/plan/matrix';
import { gatherTakes, orderTakes } from '@marvet/core/plan/order';
import { reconcileTakes } from '@marvet/core/plan/reconcile';
import { runSheet, runSheetCsv } from '@marvet/core/plan/runSheet';
import { levelLabel } from '@marvet/core/plan/words';
import { Hono } from 'hono';
import { In, IsNull } from 'typeorm';
import { currentPlan, planRecords } from '../store/planRecords.ts';
import { ApiError, download, notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

/** Most takes of a plan; more cannot be recorded in a week. */
const MOST_TAKES = 2000;

/** The plan of a trial: read, change, turn into takes, and print as a run sheet. */
export function planRoutes({ store, events }: Pick<Services, 'store' | 'events'>): Hono {
  return new Hono()
    .get('/', async (context) => context.json(await currentPlan(store, pathId(context, 'trial'))))
    .put('/', async (context) => {
      const trialId = pathId(context, 'trial');
      if (!(await store.trials.existsBy({ id: trialId }))) throw notFound('trial');
      const draft = await readBody(context, planDraftSchema);
      const known = await store.plans.findOneBy({ trialId });
      await store.plans.save({ ...draft, trialId, committedAtMs: known?.committedAtMs ?? null });
      return context.json(await currentPlan(store, trialId));
    })
    .post('/commit', async (context) => {
      const trialId = pathId(context, 'trial');
      const result = await store.transaction(async (tables) => {
        const plan = await currentPlan(tables, trialId);
        const empty = factorsWithoutLevel(plan.factors);
        if (empty.length > 0) throw new ApiError(422, 'invalid', `Nothing to record yet: tick at least one ${empty.join(', one ')}`);
        const planned = orderTakes(gatherTakes(matrixSetups(plan.factors, plan.leftOut), plan.together));
        if (planned.length === 0) throw new ApiError(422, 'invalid', 'Every cell is left out: take at least one back in');
        if (planned.length > MOST_TAKES) throw new ApiError(422, 'invalid', `${planned.length} takes are more than ${MOST_TAKES}: untick levels or leave cells out`);
        const existing = await tables.takes.find({ where: { trialId, binnedAtMs: IsNull() }, order: { position: 'ASC' } });
        const binned = await tables.takes.find({ where: { trialId }, order: { slate: 'DESC' }, take: 1 });
        const reconciled = reconcileTakes(trialId, existing, planned, binned[0]?.slate ?? 0);
        if (reconciled.dropped.length > 0) await tables.takes.delete({ id: In(reconciled.dropped.map((take) => take.id)) });
        await tables.takes.save(reconciled.takes, { chunk: 30 });
        await tables.plans.save({ ...plan, committedAtMs: Date.now() });
        return { takes: reconciled.takes.length, added: reconciled.added, kept: reconciled.kept, dropped: reconciled.dropped.length };
      });
      events.tell(trialId, { type: 'takes' });
      return context.json(result);
    })
    .get('/run-sheet.csv', async (context) => {
      const trialId = pathId(context, 'trial');
      const trial = await store.trials.findOneBy({ id: trialId });
      if (!trial) throw notFound('trial');
      const takes = await store.takes.find({ where: { trialId, binnedAtMs: IsNull() }, order: { position: 'ASC', pass: 'ASC' } });
      const plan = await currentPlan(store, trialId);
      const { chains, scripts } = await planRecords(store, trialId);
      const rows = runSheet(takes, {
        label: (kind, id) => levelLabel(plan.factors, kind, id),
        letters: (id) => chains.find((chain) => chain.id === id)?.tape.letters ?? '??',
        scriptText: (id) => scripts.find((script) => script.id === id)?.text ?? '',
      });
      return download(context, `${trial.name} run sheet.csv`, 'text/csv', runSheetCsv(rows));
    });
}
