import { chainBurden } from '@marvet/core/chain/burden';
import type { VerdictView } from '@marvet/core/contract/verdict';
import { type HeardRating, tellVerdict, type Verdict, type VerdictRecording } from '@marvet/core/decide/tellVerdict';
import { verdictCsv } from '@marvet/core/decide/verdictCsv';
import { isCutShort } from '@marvet/core/domain/fileFormat';
import type { Figures } from '@marvet/core/domain/recording';
import type { Take } from '@marvet/core/domain/take';
import { placeOfLetter } from '@marvet/core/listen/blindOrder';
import { conditionWordsOfKey } from '@marvet/core/plan/levelWords';
import { Hono } from 'hono';
import { LRUCache } from 'lru-cache';
import { listedJson } from '../store/listedJson.ts';
import { currentPlan } from '../store/planRecords.ts';
import type { TrialRow } from '../store/records.ts';
import type { ReadTables, Store } from '../store/store.ts';
import { In, IsNull, present } from '../store/table.ts';
import { ApiError, download, notFound, pathId } from './http.ts';

const KEPT = 20;

/** The verdict, once it was opened; before that only what is still missing. */
export function verdictRoutes(store: Store): Hono {
  const known = new LRUCache<string, { at: number; verdict: Verdict }>({ max: KEPT });

  /** The verdict as it was worked out last, while nothing at all was written since. */
  async function verdictAsIs(trial: TrialRow): Promise<Verdict> {
    const [row] = await store.query<{ data_version: number }>('PRAGMA data_version');
    const at = row?.data_version ?? -1;
    const kept = known.get(trial.id);
    if (kept?.at === at) return kept.verdict;
    const verdict = await verdictOf(store, trial);
    known.set(trial.id, { at, verdict });
    return verdict;
  }

  async function trialOf(id: string): Promise<TrialRow> {
    const trial = await store.trials.findOneBy({ id });
    if (!trial) throw notFound('trial');
    return trial;
  }

  return new Hono()
    .get('/', async (context) => {
      const trial = await trialOf(pathId(context, 'trial'));
      const open = trial.verdictOpenedAtMs !== null;
      const { criteria, rows, notes } = await verdictAsIs(trial);
      const missing = rows.map(({ candidate, missing: criterionIds, untested }) => ({ candidateId: candidate.id, name: candidate.name, criterionIds, untested }));
      const view: VerdictView = { open, criteria, missing, notes, passes: trial.passes, rows: open ? rows : null };
      return context.json(view);
    })
    .get('/verdict.csv', async (context) => {
      const trial = await trialOf(pathId(context, 'trial'));
      if (trial.verdictOpenedAtMs === null) throw new ApiError(409, 'sealed', 'Open the verdict first');
      const { criteria, rows, notes } = await verdictAsIs(trial);
      const plan = await currentPlan(store, trial.id);
      const where = (key: string) => conditionWordsOfKey(plan, key);
      return download(context, `${trial.name} verdict.csv`, 'text/csv', verdictCsv(rows, criteria, notes, where));
    });
}

/** The verdict of a trial from what is stored. Of thousands of recordings only the figures that are judged are read. */
async function verdictOf(store: ReadTables, trial: TrialRow): Promise<Verdict> {
  const here = present(trial.id);
  const [criteria, chains, takes, marks] = await Promise.all([
    store.criteria.find({ where: here, order: { position: 'ASC' } }),
    store.chains.find({ where: { ...here, candidate: true }, order: { position: 'ASC' } }),
    // Thousands of takes are read as the text that they are; what wrote them was checked.
    listedJson(store, 'takes', '"trialId" = ? AND "binnedAtMs" IS NULL', [trial.id]).then((text) => JSON.parse(text) as Take[]),
    store.marks.findBy({ trialId: trial.id }),
  ]);
  const items = await store.items.find();
  const itemById = new Map(items.map((item) => [item.id, item]));
  const candidates = chains.map((chain) => {
    const { price, currency } = chainBurden(chain, itemById);
    return { id: chain.id, name: chain.name, price, currency };
  });
  const measureIds = [...new Set(criteria.flatMap((criterion) => (criterion.kind === 'measured' && criterion.measureId ? [criterion.measureId] : [])))];
  return tellVerdict({
    criteria,
    candidates,
    takes,
    recordings: await judgedRecordings(store, trial.id, measureIds),
    ratings: await finishedRatings(store, trial.id),
    marks,
    passes: trial.passes,
  });
}

async function judgedRecordings(store: ReadTables, trialId: string, measureIds: readonly (keyof Figures)[]): Promise<VerdictRecording[]> {
  const paths = measureIds.map((id) => `'$."${id}"'`);
  // With several paths the answer is a list; one alone would be a bare value.
  const figures = paths.length > 0 ? `json_extract(r."figures", ${paths.join(', ')}, '$."none"')` : `'[]'`;
  const rows = await store.query<Omit<VerdictRecording, 'figures' | 'cutShort' | 'measured'> & { warnings: string; state: string; figures: string | null }>(
    `SELECT r."id", r."takeId", r."setupId", f."name" AS "fileName", f."uploadedAtMs", f."warnings", f."state", ${figures} AS "figures"
      FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId" WHERE r."trialId" = ? AND f."binnedAtMs" IS NULL AND r."setupId" IS NOT NULL`,
    [trialId],
  );
  return rows.map(({ warnings, state, figures: list, ...row }) => {
    const values = list === null ? [] : (JSON.parse(list) as (number | null)[]);
    const own = Object.fromEntries(measureIds.flatMap((id, place) => (typeof values[place] === 'number' ? [[id, values[place]]] : [])));
    return { ...row, cutShort: isCutShort(warnings), measured: state === 'done', figures: list === null ? null : (own as Figures) };
  });
}

async function finishedRatings(store: ReadTables, trialId: string): Promise<HeardRating[]> {
  const rounds = await store.rounds.findBy(present(trialId));
  const listeners = await store.listeners.findBy({ roundId: In(rounds.map((round) => round.id)), binnedAtMs: IsNull() });
  const done = listeners.filter((listener) => listener.finishedAtMs !== null);
  const ratings = await store.ratings.findBy({ listenerId: In(done.map((listener) => listener.id)) });
  return ratings.flatMap((rating) => {
    const listener = done.find((each) => each.id === rating.listenerId);
    const round = rounds.find((each) => each.id === listener?.roundId);
    const place = listener && placeOfLetter(listener.order, rating.letter);
    const recordingId = place === undefined ? undefined : round?.recordingIds[place];
    return recordingId ? [{ recordingId, criterionId: rating.criterionId, points: rating.points }] : [];
  });
}
