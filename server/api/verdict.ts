import { verdictCsv } from '@marvet/core/decide/verdictCsv';
import { Hono } from 'hono';
import type { Store } from '../store/store.ts';
import { computeVerdict } from '../store/verdict.ts';
import { ApiError, download, notFound, pathId } from './http.ts';

/** The verdict, once it was opened; before that only what is still missing. */
export function verdictRoutes(store: Store): Hono {
  async function opened(trialId: string) {
    const trial = await store.trials.findOneBy({ id: trialId });
    if (!trial) throw notFound('trial');
    return { trial, open: trial.verdictOpenedAtMs !== null };
  }

  return new Hono()
    .get('/', async (context) => {
      const { trial, open } = await opened(pathId(context, 'trial'));
      const { criteria, rows } = await computeVerdict(store, trial.id);
      const missing = rows.map((row) => ({ candidateId: row.candidate.id, name: row.candidate.name, criterionIds: row.missing }));
      return context.json(open ? { open, criteria, missing, rows } : { open, criteria, missing, rows: null });
    })
    .get('/verdict.csv', async (context) => {
      const { trial, open } = await opened(pathId(context, 'trial'));
      if (!open) throw new ApiError(409, 'sealed', 'Open the verdict first');
      const { criteria, rows } = await computeVerdict(store, trial.id);
      return download(context, `${trial.name} verdict.csv`, 'text/csv', verdictCsv(rows, criteria));
    });
}
