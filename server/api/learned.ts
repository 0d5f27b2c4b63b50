import { isSpoiled } from '@marvet/core/domain/take';
import { type HeardAs, heardAs, type PlaceRecords } from '@marvet/core/place/heardAs';
import { type Beside, type LearnedSpot, learnedSpots, type TwoSpectra } from '@marvet/core/place/learned';
import { Hono } from 'hono';
import type { Store } from '../store/store.ts';
import { byId, In, IsNull } from '../store/table.ts';

interface SpectraRow {
  id: string;
  takeId: string;
  setupId: string;
  speechDb: string;
  pauseDb: string;
}

const SPECTRA = `SELECT r."id", r."takeId", r."setupId", json_extract(r."report", '$.spectrum.speechDb') AS "speechDb", json_extract(r."report", '$.spectrum.pauseDb') AS "pauseDb"
  FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId"
  WHERE f."binnedAtMs" IS NULL AND r."report" IS NOT NULL AND r."setupId" IS NOT NULL AND r."takeId" IN (SELECT value FROM json_each(?))`;

/**
 * As long as this is the same, so is what is learned: takes and recordings are noted as they change, records of kit count
 * their changes, and what goes into the bin is counted.
 */
const STATE = `SELECT json_array((SELECT MAX("no") FROM "row_change"),
  (SELECT SUM("version") FROM "chain"), (SELECT SUM("version") FROM "placement"), (SELECT SUM("version") FROM "rig"),
  (SELECT COUNT("binnedAtMs") FROM "audio_file"), (SELECT COUNT("binnedAtMs") FROM "trial"), (SELECT COUNT("binnedAtMs") FROM "take")) AS "state"`;

/** What all takes of all trials say of spots on a body: lavaliers beside booms on the same words. Worked out again only when something of it changed. */
export function learnedRoutes(store: Store): Hono {
  let kept: { state: string; spots: LearnedSpot[] } | null = null;
  return new Hono().get('/', async (context) => {
    const state = (await store.query<{ state: string }>(STATE))[0]?.state ?? '';
    if (kept?.state !== state) kept = { state, spots: learnedSpots(await besides(store)) };
    return context.json(kept.spots);
  });
}

/** Every lavalier with a boom of the same take, of all trials that are not in the bin. */
async function besides(store: Store): Promise<Beside[]> {
  const trials = await store.trials.find({ select: { id: true }, where: { binnedAtMs: IsNull() } });
  const here = { trialId: In(trials.map(({ id }) => id)) };
  // A placement that was deleted since still says where the microphone was.
  const [chains, placements, rigs, takes] = await Promise.all([
    store.chains.find({ where: here }),
    store.placements.find({ where: here }),
    store.rigs.find({ where: here }),
    store.takes.find({ where: { ...here, binnedAtMs: IsNull(), status: 'done' } }),
  ]);
  const records: PlaceRecords = { chains: byId(chains), placements: byId(placements), rigs: byId(rigs) };
  const heard = new Map<string, { trialId: string; takeId: string; as: HeardAs }>();
  for (const take of takes.filter((each) => !isSpoiled(each))) {
    const each = take.setups.map((setup) => ({ setup, as: heardAs(take, setup, records) }));
    if (!each.some(({ as }) => as?.kind === 'boom') || !each.some(({ as }) => as?.kind === 'worn')) continue;
    for (const { setup, as } of each) if (as) heard.set(setup.id, { trialId: take.trialId, takeId: take.id, as });
  }
  const wanted = [...new Set([...heard.values()].map(({ takeId }) => takeId))];
  if (wanted.length === 0) return [];
  const rows = await store.query<SpectraRow>(SPECTRA, [JSON.stringify(wanted)]);
  const boomOf = new Map(rows.filter(({ setupId }) => heard.get(setupId)?.as.kind === 'boom').map((row) => [row.takeId, spectraOf(row)]));
  return rows.flatMap((row): Beside[] => {
    const place = heard.get(row.setupId);
    const boom = boomOf.get(row.takeId);
    if (place?.as.kind !== 'worn' || !boom) return [];
    return [{ spot: place.as.spot, under: place.as.under, trialId: place.trialId, takeId: row.takeId, lavalier: spectraOf(row), boom }];
  });
}

const spectraOf = ({ speechDb, pauseDb }: SpectraRow): TwoSpectra => ({ speechDb: JSON.parse(speechDb) as (number | null)[], pauseDb: JSON.parse(pauseDb) as (number | null)[] });
