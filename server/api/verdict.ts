import { doubtQuerySchema, effectsQuerySchema, type VerdictView } from '@marvet/core/contract/verdict';
import type { Allocation } from '@marvet/core/decide/allocate/gear';
import { gearProblem } from '@marvet/core/decide/allocate/gearProblem';
import type { RankDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import type { Effects } from '@marvet/core/decide/effects/effects';
import type { EventsTold } from '@marvet/core/decide/eventsTold';
import type { Limits } from '@marvet/core/decide/limits/limits';
import { type RawRow, rawFigures } from '@marvet/core/decide/rawFigures';
import { verdictCsv } from '@marvet/core/decide/verdictCsv';
import { conditionWordsOfKey } from '@marvet/core/plan/levelWords';
import { type Context, Hono } from 'hono';
import { currentPlan } from '../store/planRecords.ts';
import type { TrialRow } from '../store/records.ts';
import { eventsOfTrial } from './eventsOfTrial.ts';
import { gearFrom } from './gearFrom.ts';
import { ApiError, download, notFound, parsed, pathId } from './http.ts';
import { limitsOfTrial } from './limitsOfTrial.ts';
import type { Services } from './services.ts';

/** The verdict, once it was opened; before that only what is still missing. */
export function verdictRoutes({ store, verdicts, work }: Services): Hono {
  async function trialOf(id: string): Promise<TrialRow> {
    const trial = await store.trials.findOneBy({ id });
    if (!trial) throw notFound('trial');
    return trial;
  }

  /** @throws ApiError 409 while its verdict is sealed */
  async function openedOf(context: Context): Promise<TrialRow> {
    const trial = await trialOf(pathId(context, 'trial'));
    if (trial.verdictOpenedAtMs === null) throw new ApiError(409, 'sealed', 'Open the verdict first');
    return trial;
  }

  return (
    new Hono()
      .get('/', async (context) => {
        const trial = await trialOf(pathId(context, 'trial'));
        const open = trial.verdictOpenedAtMs !== null;
        const { criteria, rows, notes } = await verdicts.of(trial);
        const missing = rows.map(({ candidate, missing: criterionIds, untested }) => ({ candidateId: candidate.id, name: candidate.name, criterionIds, untested }));
        const view: VerdictView = { open, criteria, missing, notes, passes: trial.passes, rows: open ? rows : null };
        return context.json(view);
      })
      /** What made the difference: the candidate, or a factor of the plan. */
      .get('/effects', async (context) => {
        const trial = await openedOf(context);
        const { together } = parsed(effectsQuerySchema, context.req.query());
        return context.json((await work.effects(trial.id, { observed: await verdicts.observationsOf(trial), together })) satisfies Effects[]);
      })
      /** How sure the ranking is. */
      .get('/doubt', async (context) => {
        const trial = await openedOf(context);
        const { weights } = parsed(doubtQuerySchema, context.req.query());
        const doubt = await work.doubt(trial.id, { from: await verdicts.samplesOf(trial), weights });
        return context.json(doubt satisfies RankDoubt);
      })
      /** What was found in the recordings of each candidate, with the moments to hear. */
      .get('/events', async (context) => {
        const trial = await openedOf(context);
        return context.json((await eventsOfTrial(store, trial.id, await verdicts.inputOf(trial))) satisfies EventsTold[]);
      })
      /** Every value that the verdict rests on. */
      .get('/raw', async (context) => {
        const trial = await openedOf(context);
        return context.json(rawFigures(await verdicts.samplesOf(trial)) satisfies RawRow[]);
      })
      /** What each candidate can be used for, as far as it was tried. */
      .get('/limits', async (context) => {
        const trial = await openedOf(context);
        return context.json((await limitsOfTrial(store, trial.id, await verdicts.inputOf(trial))) satisfies Limits[]);
      })
      /** Who gets what. */
      .get('/allocation', async (context) => {
        const trial = await openedOf(context);
        const { criteria, rows } = await verdicts.of(trial);
        return context.json((await work.allocation(trial.id, { problem: gearProblem(await gearFrom(store, trial, criteria, rows)) })) satisfies Allocation);
      })
      .get('/verdict.csv', async (context) => {
        const trial = await openedOf(context);
        const { criteria, rows, notes } = await verdicts.of(trial);
        const plan = await currentPlan(store, trial.id);
        const where = (key: string) => conditionWordsOfKey(plan, key);
        return download(context, `${trial.name} verdict.csv`, 'text/csv', verdictCsv(rows, criteria, notes, where));
      })
  );
}
