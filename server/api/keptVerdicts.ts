import { batteriesOfYear, chainBurden } from '@marvet/core/chain/burden';
import { type DrawnFrom, samplesOf } from '@marvet/core/decide/doubt/samples';
import { type Observed, observationsOf } from '@marvet/core/decide/effects/observations';
import { tellVerdict, type Verdict } from '@marvet/core/decide/tellVerdict';
import type { HeardRating, VerdictInput, VerdictRecording } from '@marvet/core/decide/usableRecordings';
import { isCutShort } from '@marvet/core/domain/fileFormat';
import { isLinkMeasure } from '@marvet/core/domain/measureId';
import type { Figures } from '@marvet/core/domain/recording';
import type { Take } from '@marvet/core/domain/take';
import { pointsApartOf } from '@marvet/core/listen/hiddenChecks';
import { steadyWeights } from '@marvet/core/listen/steadyWeights';
import { LRUCache } from 'lru-cache';
import { KeptRows } from '../store/keptRows.ts';
import { listedJson } from '../store/listedJson.ts';
import type { TrialRow } from '../store/records.ts';
import type { ReadTables, Store } from '../store/store.ts';
import { In, IsNull, present } from '../store/table.ts';
import { heardUnder } from './heardUnder.ts';
import { linksOf } from './range.ts';

/** Trials whose rows stay in memory; one of 5,000 recordings takes some 20 MB. */
const KEPT = 3;

/** Verdicts as they are now, from rows that stay in memory. */
export interface KeptVerdicts {
  of(trial: TrialRow): Promise<Verdict>;
  /** All that it rests on, with the take and the listener of each value. */
  samplesOf(trial: TrialRow): Promise<DrawnFrom>;
  /** The values of each criterion with the conditions that they were recorded under. */
  observationsOf(trial: TrialRow): Promise<Observed[]>;
  /** All that is judged, as it is. */
  inputOf(trial: TrialRow): Promise<VerdictInput>;
  /** Works out those of the trials that were recorded in last, so that the first one who asks does not wait. */
  warm(): Promise<void>;
}

export function keptVerdicts(store: Store): KeptVerdicts {
  const known = new LRUCache<string, { at: number; verdict: Verdict }>({ max: KEPT });
  const rowsOf = new LRUCache<string, JudgedRows>({ max: KEPT, memoMethod: (trialId) => judgedRows(store, trialId) });

  /** The verdict as it was worked out last, while nothing at all was written since. */
  async function of(trial: TrialRow): Promise<Verdict> {
    const [row] = await store.query<{ data_version: number }>('PRAGMA data_version');
    const at = row?.data_version ?? -1;
    const kept = known.get(trial.id);
    if (kept?.at === at) return kept.verdict;
    const verdict = await verdictOf(store, trial, rowsOf.memo(trial.id));
    known.set(trial.id, { at, verdict });
    return verdict;
  }

  return {
    of,
    observationsOf: async (trial) => observationsOf(await inputOf(store, trial, rowsOf.memo(trial.id))),
    inputOf: (trial) => inputOf(store, trial, rowsOf.memo(trial.id)),
    samplesOf: async (trial) => samplesOf(await inputOf(store, trial, rowsOf.memo(trial.id))),
    async warm() {
      const last = await store.query<{ trialId: string }>(
        'SELECT r."trialId" FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId" GROUP BY r."trialId" ORDER BY MAX(f."uploadedAtMs") DESC LIMIT ?',
        [KEPT],
      );
      for (const { trialId } of last.reverse()) {
        const trial = await store.trials.findOneBy({ id: trialId });
        if (trial && trial.binnedAtMs === null) await of(trial);
      }
    },
  };
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

function among(ids: readonly string[], column: string): [where: string, values: readonly string[]] {
  return [`${column} IN (${ids.map(() => '?').join(', ')})`, ids];
}

/** The verdict of a trial from what is stored. */
const verdictOf = async (store: ReadTables, trial: TrialRow, rows: JudgedRows): Promise<Verdict> => tellVerdict(await inputOf(store, trial, rows));

async function inputOf(store: ReadTables, trial: TrialRow, rows: JudgedRows): Promise<VerdictInput> {
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
    const candidate = { id: chain.id, name: chain.name, price, currency };
    if (trial.hoursAYear === null) return candidate;
    const batteries = batteriesOfYear(chain, itemById, trial.hoursAYear);
    return { ...candidate, price: price === null ? null : price + batteries.price, batteries };
  });
  // Links are looked at only where a criterion asks: they need every event of every recording.
  const asked = criteria.some(({ measureId }) => measureId !== null && isLinkMeasure(measureId));
  const ranges = asked ? { ranges: (await linksOf(store, trial.id)).rows } : {};
  return { criteria, candidates, takes, recordings, ratings, marks, passes: trial.passes, ...ranges };
}

async function judgedRecordings(store: ReadTables, trialId: string, ids: readonly string[]): Promise<VerdictRecording[]> {
  const [where, values] = among(ids, 'r."id"');
  const rows = await store.query<Omit<VerdictRecording, 'figures' | 'cutShort' | 'measured'> & { warnings: string; state: string; figures: string | null }>(
    `SELECT r."id", r."takeId", r."setupId", f."name" AS "fileName", f."uploadedAtMs", f."warnings", f."state", r."figures",
      CASE WHEN json_extract(f."format", '$.lossy') THEN json_extract(f."format", '$.codec') END AS "lossyCodec"
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
  // Of a round that is closed by hand nothing counts before, or the verdict would tell what it keeps closed.
  const kept = new Set(rounds.filter(({ opens, closedAtMs }) => opens === 'closed' && closedAtMs === null).map(({ id }) => id));
  const done = listeners.filter((listener) => listener.finishedAtMs !== null && !kept.has(listener.roundId));
  const ratings = await store.ratings.findBy({ listenerId: In(done.map((listener) => listener.id)) });
  return rounds.flatMap((round) => {
    const seats = done
      .filter(({ roundId }) => roundId === round.id)
      .map((listener) => {
        const own = ratings.filter(({ listenerId }) => listenerId === listener.id);
        return { ...heardUnder(round, listener), ratings: own, listener: listener.name.trim().toLocaleLowerCase() };
      });
    const weights = round.steadyWeighs ? steadyWeights(seats.map(pointsApartOf)) : null;
    return seats.flatMap(({ letters, checks, ratings: own, listener }, seat) =>
      own.flatMap(({ letter, criterionId, points }) => {
        const recordingId = letters[letter];
        // What was hidden to see how steady somebody is was heard already.
        if (recordingId === undefined || checks[letter]) return [];
        return [{ recordingId, criterionId, points, listener, ...(weights ? { weight: weights[seat] as number } : {}) }];
      }),
    );
  });
}
