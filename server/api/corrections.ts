import { type Correction, correctionChangeSchema, correctionSchema, type MarkedEvent, MOST_CORRECTIONS, sameCorrection, sameEvent } from '@marvet/core/domain/correction';
import { idSchema } from '@marvet/core/domain/identity';
import { recordingLengthS } from '@marvet/core/domain/recording';
import { slateLabel } from '@marvet/core/domain/take';
import { eventsCsv, type RecordingEvents } from '@marvet/core/takes/eventsCsv';
import { Hono } from 'hono';
import { z } from 'zod';
import type { ReadTables, Tables } from '../store/store.ts';
import { IsNull } from '../store/table.ts';
import { ApiError, changedMeanwhile, download, notFound, parsed, pathId, readBody } from './http.ts';
import type { Services } from './services.ts';

/** Events of a recording that somebody marked, or said are none: each is kept, changed and taken back by itself. */
export function correctionRoutes({ store, work, events }: Services): Hono {
  /** Changes the corrections of a recording and has it measured with them. */
  async function change(trialId: string, id: string, changed: (corrections: readonly Correction[], lengthS: number) => Correction[]): Promise<void> {
    const fileId = await store.write(async (tables) => {
      const { recording, lengthS } = await presentIn(tables, trialId, id);
      await tables.recordings.update(recording.id, { corrections: changed(recording.corrections, lengthS) });
      return recording.fileId;
    });
    await work.measuring.request([fileId]);
    events.tell(trialId, { type: 'file', fileId });
  }

  return (
    new Hono()
      /** What happened on every recording of the trial, or on one of them. */
      .get('/events.csv', async (context) => {
        const trialId = pathId(context, 'trial');
        const only = parsed(z.object({ recording: idSchema.optional() }), context.req.query()).recording;
        const trial = await store.trials.findOneBy({ id: trialId });
        if (!trial) throw notFound('trial');
        return download(context, `${trial.name} events.csv`, 'text/csv', eventsCsv(await eventsOf(store, trialId, only)));
      })
      .put('/:id/corrections/:correction', async (context) => {
        const id = pathId(context, 'correction');
        const { was, now, seen } = await readBody(context, correctionChangeSchema);
        const wanted = parsed(correctionSchema, { id, was, now });
        await change(pathId(context, 'trial'), pathId(context, 'id'), (corrections, lengthS) => {
          within(wanted.now, lengthS);
          return withCorrection(corrections, wanted, seen);
        });
        return context.body(null, 202);
      })
      .delete('/:id/corrections/:correction', async (context) => {
        const id = pathId(context, 'correction');
        await change(pathId(context, 'trial'), pathId(context, 'id'), (corrections) => corrections.filter((each) => each.id !== id));
        return context.body(null, 202);
      })
  );
}

/** Recordings with their events, in the order of their takes. */
async function eventsOf(store: ReadTables, trialId: string, only: string | undefined): Promise<RecordingEvents[]> {
  const files = new Map((await store.files.find({ select: { id: true, name: true }, where: { trialId, binnedAtMs: IsNull() } })).map((file) => [file.id, file.name]));
  const takes = new Map((await store.takes.findBy({ trialId })).map((take) => [take.id, take]));
  const chains = new Map((await store.chains.findBy({ trialId })).map((chain) => [chain.id, chain.name]));
  // The levels over time that lie beside a report are large, and not asked for.
  const select = { id: true, fileId: true, channels: true, takeId: true, setupId: true, startS: true, report: true, corrections: true };
  const recordings = await store.recordings.find({ select, where: only ? { trialId, id: only } : { trialId } });
  const placed = recordings.flatMap(({ fileId, channels, takeId, setupId, startS, report, corrections }) => {
    const name = files.get(fileId);
    const take = takeId === null ? undefined : takes.get(takeId);
    const candidateId = take?.setups.find((setup) => setup.id === setupId)?.candidateId;
    if (name === undefined || !report) return [];
    const of = {
      take: take ? slateLabel(take) : null,
      candidate: chains.get(candidateId ?? '') ?? null,
      file: name,
      channels: channels.map((channel) => channel + 1).join(' and '),
    };
    return [{ ...of, events: report.events ?? [], corrections, fileStartS: startS ?? 0, order: take ? take.slate + take.pass / 1000 : Number.POSITIVE_INFINITY }];
  });
  return placed.sort((a, b) => a.order - b.order || a.channels.localeCompare(b.channels));
}

async function presentIn(tables: Tables, trialId: string, id: string) {
  const recording = await tables.recordings.findOneBy({ id, trialId });
  const file = recording && (await tables.files.findOneBy({ id: recording.fileId, binnedAtMs: IsNull() }));
  if (!recording || !file) throw notFound('recording');
  return { recording, lengthS: recordingLengthS(recording, file.format.durationS) };
}

function within(event: MarkedEvent | null, lengthS: number): void {
  if (event && event.endS > lengthS + 0.05) {
    throw new ApiError(422, 'invalid', `The recording ends at ${lengthS.toFixed(2)} s; mark an event before that`, { 'now.endS': 'Ends after the recording' });
  }
}

/** @param seen how the correction stood on the page that sends it; what another page did meanwhile is not undone */
function withCorrection(corrections: readonly Correction[], wanted: Correction, seen: Correction | null): Correction[] {
  const own = corrections.find((each) => each.id === wanted.id);
  const rival = corrections.find((each) => each.id !== wanted.id && each.was !== null && sameEvent(each.was, wanted.was));
  if (rival) throw changedMeanwhile('event', rival);
  // Sent twice, as a bad network does, is no change.
  if (own && sameCorrection(own, wanted)) return [...corrections];
  if (own ? !seen || !sameCorrection(own, seen) : seen !== null) throw changedMeanwhile('event', own);
  if (!own && corrections.length >= MOST_CORRECTIONS) throw new ApiError(422, 'invalid', `A recording has at most ${MOST_CORRECTIONS} corrections`);
  return own ? corrections.map((each) => (each.id === wanted.id ? wanted : each)) : [...corrections, wanted];
}
