import { planDraftSchema } from '@marvet/core/domain/plan';
import { slateLabel } from '@marvet/core/domain/take';
import { toCalendar } from '@marvet/core/formats/calendar';
import { dayCalendar } from '@marvet/core/plan/day/dayCalendar';
import { levelLabel } from '@marvet/core/plan/levelWords';
import { factorsWithoutLevel, MOST_CELLS, matrixSize } from '@marvet/core/plan/matrix';
import { runSheet, runSheetCsv } from '@marvet/core/plan/runSheet';
import { reconcileTakes } from '@marvet/core/takes/reconcile';
import { Hono } from 'hono';
import { In, IsNull } from 'typeorm';
import { committedDay, currentPlan, planRecords } from '../store/planRecords.ts';
import type { TrialRow } from '../store/rows.ts';
import { ApiError, download, notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

/** Most takes of a plan; more cannot be recorded in a week. */
const MOST_TAKES = 2000;

/** The plan of a trial: read, change, turn into takes, and take away as run sheet and calendar. */
export function planRoutes({ store, pool, events }: Pick<Services, 'store' | 'pool' | 'events'>): Hono {
  const trialOf = async (trialId: string): Promise<TrialRow> => {
    const trial = await store.trials.findOneBy({ id: trialId });
    if (!trial) throw notFound('trial');
    return trial;
  };

  return new Hono()
    .get('/', async (context) => context.json(await currentPlan(store, pathId(context, 'trial'))))
    .put('/', async (context) => {
      const trial = await trialOf(pathId(context, 'trial'));
      const draft = await readBody(context, planDraftSchema);
      const known = await store.plans.findOneBy({ trialId: trial.id });
      await store.plans.save({ ...draft, trialId: trial.id, committedAtMs: known?.committedAtMs ?? null });
      return context.json(await currentPlan(store, trial.id));
    })
    .post('/commit', async (context) => {
      const trialId = pathId(context, 'trial');
      const plan = await currentPlan(store, trialId);
      const empty = factorsWithoutLevel(plan.factors);
      if (empty.length > 0) throw new ApiError(422, 'invalid', `Nothing to record yet: tick at least one ${empty.join(', one ')}`);
      const cells = matrixSize(plan.factors);
      if (cells > MOST_CELLS) throw new ApiError(422, 'invalid', `${cells} cells are more than ${MOST_CELLS}: untick levels`);
      const built = await pool.plan({ plan, context: await planRecords(store, trialId) });
      if (built.takes.length === 0) throw new ApiError(422, 'invalid', 'Every cell is left out: take at least one back in');
      if (built.takes.length > MOST_TAKES) throw new ApiError(422, 'invalid', `${built.takes.length} takes are more than ${MOST_TAKES}: untick levels or leave cells out`);
      const result = await store.transaction(async (tables) => {
        const existing = await tables.takes.find({ where: { trialId, binnedAtMs: IsNull() }, order: { position: 'ASC' } });
        const binned = await tables.takes.find({ where: { trialId }, order: { slate: 'DESC' }, take: 1 });
        const reconciled = reconcileTakes(trialId, existing, built.takes, binned[0]?.slate ?? 0);
        if (reconciled.dropped.length > 0) await tables.takes.delete({ id: In(reconciled.dropped.map((take) => take.id)) });
        await tables.takes.save(reconciled.takes, { chunk: 30 });
        await tables.plans.save({ ...plan, committedAtMs: Date.now() });
        return { takes: reconciled.takes.length, added: reconciled.added, kept: reconciled.kept, dropped: reconciled.dropped.length };
      });
      events.tell(trialId, { type: 'takes' });
      return context.json(result);
    })
    .get('/run-sheet.csv', async (context) => {
      const trial = await trialOf(pathId(context, 'trial'));
      const { plan, takes, day, chains, scripts } = await committedDay(store, trial.id);
      const rows = runSheet(takes, {
        label: (kind, id) => levelLabel(plan.factors, kind, id),
        letters: (id) => chains.find((chain) => chain.id === id)?.tape.letters ?? '??',
        scriptText: (id) => scripts.find((script) => script.id === id)?.text ?? '',
      });
      const startsAt = day?.entries.filter((entry) => entry.kind === 'take').map((entry) => new Date(entry.startsAtMs).toTimeString().slice(0, 5)) ?? [];
      return download(context, `${trial.name} run sheet.csv`, 'text/csv', runSheetCsv(rows, startsAt));
    })
    .get('/day.ics', async (context) => {
      const trial = await trialOf(pathId(context, 'trial'));
      const { plan, takes, day, stations } = await committedDay(store, trial.id);
      if (!day) throw new ApiError(409, 'no-start', 'Give the day a start time in Plan first');
      if (takes.length === 0) throw new ApiError(409, 'no-slates', 'There are no slates yet. Make them in Plan first');
      const entries = dayCalendar(day, takes, {
        trialId: trial.id,
        trialName: trial.name,
        takeText: (index) => {
          const take = takes[index];
          return take ? `${slateLabel(take)} ${levelLabel(plan.factors, 'distance', take.condition.distance)}, ${levelLabel(plan.factors, 'script', take.condition.script)}` : '';
        },
        station: (id) => stations.find((station) => station.id === id) ?? { name: 'a station that is gone', latitudeDeg: null, longitudeDeg: null },
      });
      return download(context, `${trial.name}.ics`, 'text/calendar', toCalendar(trial.name, entries));
    });
}
