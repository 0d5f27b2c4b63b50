import type { RangeAnswer } from '@marvet/core/contract/field';
import type { Correction } from '@marvet/core/domain/correction';
import { shownEvents } from '@marvet/core/measure/events/corrected';
import type { AudioEvent } from '@marvet/core/measure/report.types';
import { type LinkRecording, rangeRows, stationTroubles } from '@marvet/core/radio/rangeWindows';
import { Hono } from 'hono';
import { currentPlan } from '../store/planRecords.ts';
import type { ReadTables, Store } from '../store/store.ts';
import { byId, present } from '../store/table.ts';
import { notFound, pathId } from './http.ts';
import { logStartS } from './performances.ts';
import { tracksOf } from './tracks.ts';

interface EventsRow {
  takeId: string;
  setupId: string;
  startS: number | null;
  endS: number | null;
  durationS: number;
  timeReferenceS: number | null;
  corrections: string;
  events: string;
}

const EVENTS = `SELECT r."takeId", r."setupId", r."startS", r."endS", json_extract(f."format", '$.durationS') AS "durationS", json_extract(f."format", '$.timeReferenceS') AS "timeReferenceS", r."corrections", json_extract(r."report", '$.events') AS "events"
  FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId"
  WHERE r."trialId" = ? AND f."binnedAtMs" IS NULL AND r."report" IS NOT NULL AND r."setupId" IS NOT NULL AND r."takeId" IS NOT NULL`;

/** How far the links of a trial's candidates held, and where they did not. */
export async function linksOf(store: ReadTables, trialId: string): Promise<RangeAnswer> {
  const [plan, takes, chains, items, rows] = await Promise.all([
    currentPlan(store, trialId),
    store.takes.find({ where: present(trialId) }),
    store.chains.find({ where: { trialId } }),
    store.items.find(),
    store.query<EventsRow>(EVENTS, [trialId]),
  ]);
  const takeOf = byId(takes);
  const tracks = await tracksOf(
    store,
    trialId,
    takes.filter(({ walk }) => walk.length > 0),
  );
  const recordings = rows.map(({ takeId, setupId, startS, endS, durationS, timeReferenceS, corrections, events }): LinkRecording => {
    const shown = shownEvents(JSON.parse(events) as AudioEvent[], JSON.parse(corrections) as Correction[]);
    const fromS = startS ?? 0;
    const beganS = logStartS(timeReferenceS, takeOf.get(takeId)?.startedAtMs ?? null, durationS) ?? 0;
    return {
      takeId,
      setupId,
      lengthS: (endS ?? durationS) - fromS,
      startS: beganS - fromS,
      breakUpsS: shown.filter(({ kind }) => kind === 'dropout').map((event) => event.startS),
    };
  });
  const records = { plan, takes, chains, items: byId(items), tracks };
  return { rows: rangeRows(recordings, records), troubles: stationTroubles(recordings, records) };
}

export function rangeRoutes(store: Store): Hono {
  return new Hono().get('/', async (context) => {
    const trialId = pathId(context, 'trial');
    if (!(await store.trials.existsBy({ id: trialId }))) throw notFound('trial');
    return context.json(await linksOf(store, trialId));
  });
}
