import { applyLog, logLineSchema } from '@marvet/core/domain/logLine';
import { Hono } from 'hono';
import { In, IsNull } from 'typeorm';
import { z } from 'zod';
import { notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

const logBatchSchema = z.object({ lines: z.array(logLineSchema).min(1).max(500) });

/** Takes of a trial and the field log that makes them. */
export function takeRoutes({ store, events }: Pick<Services, 'store' | 'events'>): Hono {
  return (
    new Hono()
      .get('/takes', async (context) => {
        const takes = await store.takes.find({ where: { trialId: pathId(context, 'trial'), binnedAtMs: IsNull() }, order: { position: 'ASC', pass: 'ASC' } });
        return context.json(takes);
      })
      .delete('/takes/:id', async (context) => {
        const { affected } = await store.takes.update({ id: pathId(context, 'id'), trialId: pathId(context, 'trial'), binnedAtMs: IsNull() }, { binnedAtMs: Date.now() });
        if (!affected) throw notFound('take');
        return context.body(null, 204);
      })
      .get('/log', async (context) => {
        const rows = await store.logLines.find({ where: { trialId: pathId(context, 'trial') }, order: { atMs: 'ASC' } });
        return context.json(rows.map((row) => row.line));
      })
      /**
       * Adds lines to the log and changes their takes, in one transaction, before it answers. A line that
       * is there already counts once; a line for a take that is gone is kept and named in `unknown`.
       */
      .post('/log', async (context) => {
        const trialId = pathId(context, 'trial');
        const { lines } = await readBody(context, logBatchSchema);
        if (!(await store.trials.existsBy({ id: trialId }))) throw notFound('trial');
        const unknown = await store.transaction(async (tables) => {
          const known = new Set((await tables.logLines.findBy({ id: In(lines.map((line) => line.id)) })).map((row) => row.id));
          const fresh = [...new Map(lines.filter((line) => !known.has(line.id)).map((line) => [line.id, line])).values()];
          const takes = await tables.takes.findBy({ trialId });
          const receivedAtMs = Date.now();
          if (fresh.length > 0) {
            const rows = fresh.map((line) => ({ id: line.id, trialId, takeId: line.takeId, atMs: line.atMs, receivedAtMs, line }));
            await tables.logLines.insert(rows);
          }
          const after = applyLog(takes, fresh);
          const before = new Map(takes.map((take) => [take.id, take]));
          await tables.takes.save(after.filter((take) => before.get(take.id) !== take));
          return fresh.filter((line) => !after.some((take) => take.id === line.takeId)).map((line) => line.id);
        });
        events.tell(trialId, { type: 'takes' });
        return context.json({ accepted: lines.map((line) => line.id), unknown });
      })
  );
}
