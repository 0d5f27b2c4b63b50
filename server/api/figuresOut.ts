import { type FiguresOfRecording, figuresCsv, figuresJson, figuresOf } from '@marvet/core/takes/figuresOut';
import { Hono } from 'hono';
import { present } from '../store/table.ts';
import { download, notFound, pathId } from './http.ts';
import type { Services } from './services.ts';

/** Every recording of a trial with its figures. @throws ApiError 404 where there is no such trial */
export async function measuredOf(store: Services['store'], trialId: string): Promise<{ name: string; rows: FiguresOfRecording[] }> {
  const trial = await store.trials.findOneBy({ id: trialId });
  if (!trial) throw notFound('trial');
  const plan = await store.plans.findOneBy({ trialId });
  const files = await store.files.find({
    select: { id: true, name: true, sha256: true, state: true, methodVersion: true, warnings: true, format: true as never },
    where: present(trialId),
  });
  // Reports and levels over time are large, and not asked for.
  const select = {
    id: true,
    fileId: true,
    channels: true,
    trackName: true,
    startS: true,
    endS: true,
    takeId: true,
    setupId: true,
    figures: true as never,
    stereo: true as never,
    backup: true as never,
  };
  const recordings = await store.recordings.find({ select, where: { trialId } });
  const takes = await store.takes.findBy(present(trialId));
  const chains = await store.chains.findBy({ trialId });
  return { name: trial.name, rows: figuresOf({ names: plan ?? { factors: [], removedLevels: [] }, takes, chains, files, recordings }) };
}

/** All figures of all recordings of a trial, to be taken away: as CSV for a spreadsheet, as JSON with what each figure is. */
export function figuresOutRoutes({ store }: Pick<Services, 'store'>): Hono {
  return new Hono()
    .get('/figures.csv', async (context) => {
      const { name, rows } = await measuredOf(store, pathId(context, 'trial'));
      return download(context, `${name} figures.csv`, 'text/csv', figuresCsv(rows));
    })
    .get('/figures.json', async (context) => {
      const { name, rows } = await measuredOf(store, pathId(context, 'trial'));
      return download(context, `${name} figures.json`, 'application/json', JSON.stringify(figuresJson(name, rows), null, 1));
    });
}
