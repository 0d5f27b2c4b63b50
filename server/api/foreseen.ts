import type { ForeseenAndFound } from '@marvet/core/contract/placing';
import { foreseenRows, foreseenSums } from '@marvet/core/place/foreseen';
import { gatherFound, type MeasuredRecording } from '@marvet/core/place/gatherFound';
import { Hono } from 'hono';
import { currentPlan } from '../store/planRecords.ts';
import type { Store } from '../store/store.ts';
import { byId, present } from '../store/table.ts';
import { notFound, pathId } from './http.ts';

interface MeasuredRow {
  id: string;
  takeId: string;
  setupId: string;
  figures: string;
  speechDb: string;
  pauseDb: string;
}

const MEASURED = `SELECT r."id", r."takeId", r."setupId", r."figures", json_extract(r."report", '$.spectrum.speechDb') AS "speechDb", json_extract(r."report", '$.spectrum.pauseDb') AS "pauseDb"
  FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId"
  WHERE r."trialId" = ? AND f."binnedAtMs" IS NULL AND r."report" IS NOT NULL AND r."figures" IS NOT NULL AND r."setupId" IS NOT NULL`;

/** What was foreseen of the takes of a trial, beside what was found. */
export function foreseenRoutes(store: Store): Hono {
  return new Hono().get('/', async (context) => {
    const trialId = pathId(context, 'trial');
    if (!(await store.trials.existsBy({ id: trialId }))) throw notFound('trial');
    const here = { where: { trialId } };
    const [plan, takes, chains, stations, placements, rigs, items, rows] = await Promise.all([
      currentPlan(store, trialId),
      store.takes.find({ where: { ...present(trialId), status: 'done' } }),
      store.chains.find(here),
      store.stations.find(here),
      store.placements.find(here),
      store.rigs.find(here),
      store.items.find(),
      store.query<MeasuredRow>(MEASURED, [trialId]),
    ]);
    const measured = rows.map(
      ({ figures, speechDb, pauseDb, ...row }): MeasuredRecording => ({
        ...row,
        figures: JSON.parse(figures),
        spectra: { speechDb: JSON.parse(speechDb), pauseDb: JSON.parse(pauseDb) },
      }),
    );
    const found = gatherFound(measured, {
      plan,
      takes,
      chains: byId(chains),
      candidates: byId(chains),
      stations: byId(stations),
      placements: byId(placements),
      rigs: byId(rigs),
      items: byId(items),
    });
    const foreseen = foreseenRows(found);
    const reckoned = new Set(foreseen.map(({ recordingId }) => recordingId));
    const answer: ForeseenAndFound = { rows: foreseen, sums: foreseenSums(foreseen), unforeseen: measured.length - reckoned.size };
    return context.json(answer);
  });
}
