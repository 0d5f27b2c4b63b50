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
import { KeptRows } from '../store/keptRows.ts';
import { listedJson } from '../store/listedJson.ts';
import { currentPlan } from '../store/planRecords.ts';
import type { TrialRow } from '../store/records.ts';
import type { ReadTables, Store } from '../store/store.ts';
import { In, IsNull, present } from '../store/table.ts';
import { ApiError, download, notFound, pathId } from './http.ts';

/** Trials whose rows stay in memory; one of 5,000 recordings takes some 20 MB. */
const KEPT = 3;

/** The verdict, once it was opened; before that only what is still missing. */
export function verdictRoutes(store: Store): Hono {
  const known = new LRUCache<string, { at: number; verdict: Verdict }>({ max: KEPT });
  const rowsOf = new LRUCache<string, JudgedRows>({ max: KEPT, memoMethod: (trialId) => judgedRows(store, trialId) });

  /** The verdict as it was worked out last, while nothing at all was written since. */
  async function verdictAsIs(trial: TrialRow): Promise<Verdict> {
    const [row] = await store.query<{ data_version: number }>('PRAGMA data_version');
    const at = row?.data_version ?? -1;
    const kept = known.get(trial.id);
    if (kept?.at === at) return kept.verdict;
    const verdict = await verdictOf(store, trial, rowsOf.memo(trial.id));
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

/** The thousands of rows that a verdict looks at. */
interface JudgedRows {
  takes: KeptRows<Take>;
  recordings: KeptRows<VerdictRecording>;
}

function judgedRows(store: ReadTables, trialId: string): JudgedRows {
  return {
    takes: new KeptRows(store, trialId, 'take', async (ids) => {
      const [where, values] = among(ids, '"id"');
      // Takes are read as the text that they are; what wrote them was checked.
      const text = await listedJson(store, 'takes', `"trialId" = ? AND "binnedAtMs" IS NULL AND ${where}`, [trialId, ...values]);
      return (JSON.parse(text) as Take[]).map((take) => [take.id, take]);
    }),
    recordings: new KeptRows(store, trialId, 'recording', async (ids) => (await judgedRecordings(store, trialId, ids)).map((recording) => [recording.id, recording])),
  };
}

function among(ids: readonly string[] | null, column: string): [where: string, values: readonly string[]] {
  return ids === null ? ['1', []] : [`${column} IN (${ids.map(() => '?').join(', ')})`, ids];
}

/** The verdict of a trial from what is stored. */
async function verdictOf(store: ReadTables, trial: TrialRow, rows: JudgedRows): Promise<Verdict> {
  const here = present(trial.id);
  const [criteria, chains, marks, items, takes, recordings, ratings] = await Promise.all([
    store.criteria.find({ where: here, order: { position: 'ASC' } }),
    store.chains.find({ where: { ...here, candidate: true }, order: { position: 'ASC' } }),
    store.marks.findBy({ trialId: trial.id }),
    store.items.find(),
    rows.takes.all(),
    rows.recordings.all(),
    finishedRatings(store, trial.id),
  ]);
  const itemById = new Map(items.map((item) => [item.id, item]));
  const candidates = chains.map((chain) => {
    const { price, currency } = chainBurden(chain, itemById);
    return { id: chain.id, name: chain.name, price, currency };
  });
  return tellVerdict({ criteria, candidates, takes, recordings, ratings, marks, passes: trial.passes });
}

async function judgedRecordings(store: ReadTables, trialId: string, ids: readonly string[] | null): Promise<VerdictRecording[]> {
  const [where, values] = among(ids, 'r."id"');
  const rows = await store.query<Omit<VerdictRecording, 'figures' | 'cutShort' | 'measured'> & { warnings: string; state: string; figures: string | null }>(
    `SELECT r."id", r."takeId", r."setupId", f."name" AS "fileName", f."uploadedAtMs", f."warnings", f."state", r."figures"
      FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId" WHERE r."trialId" = ? AND f."binnedAtMs" IS NULL AND r."setupId" IS NOT NULL AND ${where}`,
    [trialId, ...values],
  );
  return rows.map(({ warnings, state, figures, ...row }) => ({
    ...row,
    cutShort: isCutShort(warnings),
    measured: state === 'done',
    figures: figures === null ? null : (JSON.parse(figures) as Figures),
  }));
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
