import { Hono } from 'hono';
import { In, IsNull } from '../store/table.ts';
import { notFound, pathId } from './http.ts';
import type { Services } from './services.ts';

const MOST_SHOWN = 1000;

/** Jobs of a trial: what waits, what is under way, what failed; cancel and retry, the same for all kinds. */
export function jobRoutes({ store, work }: Pick<Services, 'store' | 'work'>): Hono {
  const known = async (trialId: string, id: string) => {
    const job = await store.jobs.findOneBy([
      { id, trialId },
      { id, trialId: IsNull() },
    ]);
    if (!job) throw notFound('job');
    return job;
  };
  return new Hono()
    .get('/', async (context) => {
      const trialId = pathId(context, 'trial');
      const where = { trialId, state: In(['queued', 'running', 'failed']) };
      return context.json(await store.jobs.find({ where, order: { priority: 'DESC', createdAtMs: 'ASC' }, take: MOST_SHOWN }));
    })
    .post('/:id/cancel', async (context) => {
      const job = await known(pathId(context, 'trial'), pathId(context, 'id'));
      if (job.kind === 'measure') await work.measuring.cancel(job.subjectId);
      else await work.runner.cancel({ id: job.id });
      return context.body(null, 204);
    })
    .post('/:id/retry', async (context) => {
      const job = await known(pathId(context, 'trial'), pathId(context, 'id'));
      if (job.kind === 'measure') await work.measuring.request([job.subjectId]);
      else if (!(await work.runner.retry(job.id))) throw notFound('job that can be tried again');
      return context.body(null, 202);
    });
}
