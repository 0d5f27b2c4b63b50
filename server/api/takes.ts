import type { LogAnswer } from '@marvet/core/contract/answers';
import { applyLog, logLineSchema } from '@marvet/core/domain/logLine';
import { Hono } from 'hono';
import { z } from 'zod';
import { listedJson } from '../store/listedJson.ts';
import { In, inParts, present } from '../store/table.ts';
import { cutTakes } from './cuts.ts';
import { notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

const logBatchSchema = z.object({ lines: z.array(z.unknown()).min(1).max(500) });

/** Takes of a trial and the field log that makes them. */
export function takeRoutes({ store, events, work }: Pick<Services, 'store' | 'events' | 'work'>): Hono {
  return (
    new Hono()
      .get('/takes', async (context) => {
        const text = await listedJson(store, 'takes', '"trialId" = ? AND "binnedAtMs" IS NULL ORDER BY "position", "pass"', [pathId(context, 'trial')]);
        return context.body(text, 200, { 'Content-Type': 'application/json' });
      })
      .delete('/takes/:id', async (context) => {
        const where = { id: pathId(context, 'id'), ...present(pathId(context, 'trial')) };
        const { affected } = await store.write((tables) => tables.takes.update(where, { binnedAtMs: Date.now() }));
        if (!affected) throw notFound('take');
        await work.against.look(where.trialId, [where.id]);
        return context.body(null, 204);
      })
      .get('/log', async (context) => {
        const rows = await store.logLines.find({ where: { trialId: pathId(context, 'trial') }, order: { atMs: 'ASC' } });
        return context.json(rows.map((row) => row.line));
      })
      /**
       * Adds lines to the log and changes their takes, in one transaction, before it answers. A line that
       * is there already counts once; a line for a take that is gone is kept and named in `unknown`; one
       * that cannot be understood is named in `refused` with its reason, and the others go on.
       */
      .post('/log', async (context) => {
        const trialId = pathId(context, 'trial');
        const { lines: sent } = await readBody(context, logBatchSchema);
        const refused: LogAnswer['refused'] = [];
        const lines = sent.flatMap((each) => {
          const result = logLineSchema.safeParse(each);
          if (result.success) return [result.data];
          refused.push({ id: idOf(each), why: result.error.issues[0]?.message ?? 'It cannot be understood' });
          return [];
        });
        const { unknown, cut } = await store.write(async (tables) => {
          if (!(await tables.trials.existsBy({ id: trialId }))) throw notFound('trial');
          const known = new Set((await tables.logLines.find({ select: { id: true }, where: { id: In(lines.map((line) => line.id)) } })).map((row) => row.id));
          const fresh = [...new Map(lines.filter((line) => !known.has(line.id)).map((line) => [line.id, line])).values()];
          const meant = [...new Set(fresh.flatMap((line) => [line.takeId, ...(line.kind === 'order' ? line.takeIds : [])]))];
          // All passes of a slate, since doing a take again counts them.
          const named = await inParts(meant, (part) => tables.takes.findBy({ trialId, id: part }));
          const slates = [...new Set(named.map((take) => take.slate))];
          const takes = await inParts(slates, (part) => tables.takes.findBy({ trialId, slate: part }));
          const receivedAtMs = Date.now();
          const rows = fresh.map((line) => ({ id: line.id, trialId, takeId: line.takeId, atMs: line.atMs, receivedAtMs, line }));
          for (let start = 0; start < rows.length; start += 100) await tables.logLines.insert(rows.slice(start, start + 100));
          const after = applyLog(takes, fresh);
          const before = new Map(takes.map((take) => [take.id, take]));
          await tables.takes.save(after.filter((take) => before.get(take.id) !== take));
          // Where something was switched, or began at another moment, recordings that are here already are cut anew.
          const recut = after.filter((take) => take.setups.some(({ fromId }) => fromId !== undefined) || before.get(take.id)?.setups.length !== take.setups.length);
          const cut = await cutTakes(
            tables,
            recut.filter(({ id }) => before.has(id)),
          );
          return { unknown: fresh.filter((line) => !after.some((take) => take.id === line.takeId)).map((line) => line.id), cut };
        });
        if (cut.length > 0) await work.measuring.request(cut);
        for (const fileId of cut) events.tell(trialId, { type: 'file', fileId });
        if (lines.length > 0) events.tell(trialId, { type: 'records', tags: ['Takes', 'Trials', 'Verdict'], page: null });
        return context.json({ accepted: lines.map((line) => line.id), unknown, refused } satisfies LogAnswer);
      })
  );
}

function idOf(line: unknown): string | null {
  const id = (line as { id?: unknown } | null)?.id;
  return typeof id === 'string' ? id : null;
}
