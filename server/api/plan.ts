import type { CommitResult } from '@marvet/core/contract/answers';
import { EXTRA_KINDS } from '@marvet/core/domain/factor';
import { type PlanDraft, planDraftSchema } from '@marvet/core/domain/plan';
import { slateLabel } from '@marvet/core/domain/take';
import { toCalendar } from '@marvet/core/formats/calendar';
import type { BuiltPlan } from '@marvet/core/plan/buildPlan';
import { dayCalendar } from '@marvet/core/plan/day/dayCalendar';
import { levelLabel } from '@marvet/core/plan/levelWords';
import { factorsWithoutLevel, MOST_CELLS, matrixSize } from '@marvet/core/plan/matrix';
import { levelsText, runSheet, runSheetCsv } from '@marvet/core/plan/runSheet';
import { reconcileTakes } from '@marvet/core/takes/reconcile';
import { Hono } from 'hono';
import { committedDay, currentPlan, planRecords } from '../store/planRecords.ts';
import type { TrialRow } from '../store/records.ts';
import type { Tables } from '../store/store.ts';
import { inParts, present } from '../store/table.ts';
import { ApiError, changedMeanwhile, download, notFound, pathId, readChange } from './http.ts';
import type { Services } from './services.ts';

/** Most takes of a plan; more cannot be recorded in a week. */
const MOST_TAKES = 2000;
/** How often slates are worked out anew when the plan changes meanwhile. */
const MOST_TRIES = 4;

/** The plan of a trial: read, change, turn into takes, and take away as run sheet and calendar. */
export function planRoutes({ store, work, events }: Pick<Services, 'store' | 'work' | 'events'>): Hono {
  const trialOf = async (trialId: string): Promise<TrialRow> => {
    const trial = await store.trials.findOneBy({ id: trialId });
    if (!trial) throw notFound('trial');
    return trial;
  };

  return new Hono()
    .get('/', async (context) => context.json(await currentPlan(store, (await trialOf(pathId(context, 'trial'))).id)))
    .put('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const { draft, version } = await readChange(context, planDraftSchema);
      const stale = await store.write(async (tables) => {
        if (!(await tables.trials.existsBy({ id: trialId }))) throw notFound('trial');
        const known = await tables.plans.findOneBy({ trialId });
        if ((known?.version ?? 1) !== version) return true;
        const { trialId: _trial, committedAtMs, ...before } = known ?? { trialId, committedAtMs: null };
        await tables.plans.save({ ...before, ...draft, trialId, version: version + 1, committedAtMs });
        return false;
      });
      if (stale) throw changedMeanwhile('plan', await currentPlan(store, trialId));
      return context.json(await currentPlan(store, trialId));
    })
    .post('/commit', async (context) => {
      const trialId = pathId(context, 'trial');
      await trialOf(trialId);
      for (let tries = 0; tries < MOST_TRIES; tries++) {
        const plan = await currentPlan(store, trialId);
        const records = await planRecords(store, trialId);
        const built = await builtPlan(work, trialId, plan, records);
        const result = await store.write(async (tables) => {
          // Working out takes a while. What was changed in that time is not undone: it is worked out again.
          const now = { plan: await currentPlan(tables, trialId), records: await planRecords(tables, trialId) };
          if (JSON.stringify(now) !== JSON.stringify({ plan, records })) return null;
          return layOver(tables, trialId, built);
        });
        if (!result) continue;
        events.tell(trialId, { type: 'records', tags: ['Takes', 'Plan', 'Trials', 'Bin'], page: null });
        return context.json(result);
      }
      throw new ApiError(409, 'changing', 'The plan kept changing while slates were worked out. Nothing was made; try again in a moment.');
    })
    .get('/run-sheet.csv', async (context) => {
      const trial = await trialOf(pathId(context, 'trial'));
      const { plan, takes, day, chains, scripts } = await committedDay(store, trial.id);
      const rows = runSheet(takes, {
        label: (kind, id) => levelLabel(plan, kind, id),
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
      const label = (kind: Parameters<typeof levelLabel>[1], id: string) => levelLabel(plan, kind, id);
      const entries = dayCalendar(day, takes, {
        trialId: trial.id,
        trialName: trial.name,
        takeText: (index) => {
          const take = takes[index];
          if (!take) return '';
          const told = (['distance', ...EXTRA_KINDS, 'windscreen', 'script'] as const).map((kind) => levelsText(take, kind, { label })).filter(Boolean);
          return `${slateLabel(take)} ${told.join(', ')}`;
        },
        station: (id) => stations.find((station) => station.id === id) ?? { name: 'a station that is gone', latitudeDeg: null, longitudeDeg: null },
      });
      return download(context, `${trial.name}.ics`, 'text/calendar', toCalendar(trial.name, entries));
    });
}

/** @throws ApiError 422 when there is nothing to make slates of, or too much */
async function builtPlan(work: Services['work'], trialId: string, plan: PlanDraft, records: Awaited<ReturnType<typeof planRecords>>): Promise<BuiltPlan> {
  const empty = factorsWithoutLevel(plan.factors);
  if (empty.length > 0) throw new ApiError(422, 'invalid', `Nothing to record yet: tick at least one ${empty.join(', one ')}`);
  const cells = matrixSize(plan.factors);
  if (cells > MOST_CELLS) throw new ApiError(422, 'invalid', `${cells} cells are more than ${MOST_CELLS}: untick levels`);
  const built = await work.plan(trialId, plan, records);
  if (built.takes.length === 0) throw new ApiError(422, 'invalid', 'Every cell is left out: take at least one back in');
  if (built.takes.length > MOST_TAKES) throw new ApiError(422, 'invalid', `${built.takes.length} takes are more than ${MOST_TAKES}: untick levels or leave cells out`);
  return built;
}

/** Lays a plan over the takes that exist: nothing noted, logged or recorded goes, the rest goes to the bin, no number is given twice. */
async function layOver(tables: Tables, trialId: string, built: BuiltPlan): Promise<CommitResult> {
  const existing = await tables.takes.find({ where: present(trialId), order: { position: 'ASC', pass: 'ASC' } });
  const [highest] = await tables.query<{ slate: number | null }>('SELECT MAX("slate") AS "slate" FROM "take" WHERE "trialId" = ?', [trialId]);
  const held = await tables.query<{ takeId: string }>(
    'SELECT "takeId" FROM "recording" WHERE "trialId" = ? AND "takeId" IS NOT NULL UNION SELECT "takeId" FROM "log_line" WHERE "trialId" = ?',
    [trialId, trialId],
  );
  const laid = reconcileTakes(trialId, existing, built.takes, highest?.slate ?? 0, new Set(held.map(({ takeId }) => takeId)));
  const binnedAtMs = Date.now();
  await inParts(
    laid.dropped.map((take) => take.id),
    async (part) => [await tables.takes.update({ id: part }, { binnedAtMs })],
  );
  await tables.takes.save(laid.takes, { chunk: 30 });
  await tables.query('UPDATE "plan" SET "committedAtMs" = ? WHERE "trialId" = ?', [binnedAtMs, trialId]);
  return { takes: laid.takes.length, added: laid.added, kept: laid.kept, dropped: laid.dropped.length, stayed: laid.stayed.length };
}
