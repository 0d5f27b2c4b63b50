import type { LogAnswer, WrittenLine } from '@marvet/core/contract/answers';
import { instantMsSchema } from '@marvet/core/domain/identity';
import { clockBehindMs, lineOnClock } from '@marvet/core/domain/lineClock';
import { type LogLine, logLineSchema } from '@marvet/core/domain/logLine';
import { mergeLog } from '@marvet/core/takes/mergeLog';
import { Hono } from 'hono';
import { z } from 'zod';
import { listedJson } from '../store/listedJson.ts';
import type { ReadTables } from '../store/store.ts';
import { In, inParts, present } from '../store/table.ts';
import { cutTakes } from './cuts.ts';
import { guestOf } from './guestOf.ts';
import { notFound, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

/** More lines than anybody reads back. */
const MOST_WRITTEN = 1000;

const logBatchSchema = z.object({
  lines: z.array(z.unknown()).min(1).max(500),
  /** What the device's own clock said when it sent them, what it added to it in the lines, and by how much it knows that it is behind. */
  sentAtMs: instantMsSchema.optional(),
  addedMs: z.number().int().default(0),
  knownMs: z.number().int().default(0),
});

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
      /** The newest lines with who wrote them, newest first. */
      .get('/log/written', async (context) => {
        const rows = await store.logLines.find({ where: { trialId: pathId(context, 'trial') }, order: { atMs: 'DESC' }, take: MOST_WRITTEN });
        return context.json(rows.map(({ line, writer, clockBehindMs: behindMs, receivedAtMs }) => ({ line, writer, clockBehindMs: behindMs, receivedAtMs }) satisfies WrittenLine));
      })
      /**
       * Adds lines to the log and changes their takes, in one transaction, before it answers. A line that
       * is there already counts once; a line for a take that is gone is kept and named in `unknown`; one
       * that cannot be understood is named in `refused` with its reason, and the others go on.
       */
      .post('/log', async (context) => {
        const trialId = pathId(context, 'trial');
        const receivedAtMs = Date.now();
        const { lines: sent, sentAtMs, addedMs, knownMs } = await readBody(context, logBatchSchema);
        const clockMs = sentAtMs === undefined ? addedMs : clockBehindMs(sentAtMs, receivedAtMs, knownMs);
        const guest = guestOf(context);
        const refused: LogAnswer['refused'] = [];
        const lines = sent.flatMap((each) => {
          const result = logLineSchema.safeParse(each);
          if (result.success) return [lineOnClock(result.data, clockMs - addedMs)];
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
          const knownLines = await linesBehind(tables, takes, fresh);
          const written = { trialId, receivedAtMs, writer: guest?.name ?? null, clockBehindMs: clockMs === 0 ? null : clockMs };
          const rows = fresh.map((line) => ({ ...written, id: line.id, takeId: line.takeId, atMs: line.atMs, line }));
          for (let start = 0; start < rows.length; start += 100) await tables.logLines.insert(rows.slice(start, start + 100));
          if (guest) await tables.guests.update(guest.id, { clockBehindMs: clockMs });
          const after = mergeLog(takes, knownLines, fresh);
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
        return context.json({ accepted: lines.map((line) => line.id), unknown, refused, clockBehindMs: clockMs } satisfies LogAnswer);
      })
  );
}

/** Lines of takes that are known, where one of `fresh` was written before the newest of them; else none is needed. */
async function linesBehind(tables: Pick<ReadTables, 'logLines'>, takes: readonly { id: string }[], fresh: readonly LogLine[]): Promise<LogLine[]> {
  const ids = takes.map(({ id }) => id);
  const times = await inParts(ids, (part) => tables.logLines.find({ select: { id: true, atMs: true }, where: { takeId: part } }));
  const latestMs = times.reduce((latest, { atMs }) => Math.max(latest, atMs), 0);
  if (fresh.every(({ atMs }) => atMs >= latestMs)) return [];
  const rows = await inParts(ids, (part) => tables.logLines.find({ where: { takeId: part } }));
  return rows.map(({ line }) => line);
}

function idOf(line: unknown): string | null {
  const id = (line as { id?: unknown } | null)?.id;
  return typeof id === 'string' ? id : null;
}
