import type { Reference } from '@marvet/core/domain/trial';
import type { ComparedPair } from '@marvet/core/measure/pair/pair';
import { METHOD_VERSION } from '@marvet/core/measure/report.types';
import { OF_ITSELF, pairFigures, referencesOf } from '@marvet/core/takes/reference';
import type { BlobStore } from '../audio/blobs.ts';
import type { RecordingRow } from '../store/records.ts';
import type { ReadTables, Store, Tables } from '../store/store.ts';
import { inParts, present } from '../store/table.ts';
import type { EventBus } from './events.ts';
import { shownFigures } from './keepReport.ts';
import type { WorkerPool } from './pool.ts';
import type { JobHandler, JobRunner } from './runner.ts';

/** Keeps the recordings of a trial measured against the reference of their takes. */
export interface AgainstReference {
  /** Looks at some takes, or at all, and has measured what is not as it should be; what has no reference any more loses its figures. */
  look(trialId: string, takeIds: readonly (string | null)[] | 'all'): Promise<void>;
}

/** Rows that are written in one go; between two of them others are served. */
const AT_ONCE = 100;

/** What was measured of a recording against its reference. */
type Against = NonNullable<RecordingRow['against']>;

/** A recording in a take, as much of it as says what it is to be measured against. */
interface Placed {
  id: string;
  fileId: string;
  takeId: string | null;
  setupId: string | null;
  /** As the text of a list. */
  channels: string;
  startS: number | null;
  endS: number | null;
  key: string | null;
  sha256: string;
}

/** What a recording is to be measured against. The same key is the same work. */
interface Wanted {
  reference: Placed;
  key: string;
}

export function openAgainst(store: Store, runner: JobRunner, events: EventBus): AgainstReference {
  /** Looks at one trial come one after the other: each knows the reference of its turn, and the last one has the last word. */
  const last = new Map<string, Promise<void>>();
  return {
    look(trialId, takeIds) {
      const here = (last.get(trialId) ?? Promise.resolve()).then(() => lookNow(trialId, takeIds));
      // One that failed is told to who asked for it; the next one starts anew.
      last.set(
        trialId,
        here.catch(() => undefined),
      );
      return here;
    },
  };

  async function lookNow(trialId: string, takeIds: readonly (string | null)[] | 'all'): Promise<void> {
    const { rows, wanted } = await wantedIn(store, trialId, takeIds);
    const changed = rows.filter((row) => row.key !== (wanted.get(row.id)?.key ?? null));
    if (changed.length === 0) return;
    // What was measured against another reference is no figure against this one.
    const outdated = changed.filter((row) => row.key !== null || row === wanted.get(row.id)?.reference);
    for (let start = 0; start < outdated.length; start += AT_ONCE) {
      await store.write(async (tables) => {
        for (const row of outdated.slice(start, start + AT_ONCE)) {
          const own = wanted.get(row.id);
          await keep(tables, row.id, own?.reference === row ? ofItself(own) : null);
        }
      });
    }
    for (const fileId of new Set(changed.map((row) => row.fileId))) events.tell(trialId, { type: 'file', fileId });
    const requests = changed.flatMap((row) => {
      const own = wanted.get(row.id);
      return own && own.reference !== row ? [{ kind: 'against' as const, trialId, subjectId: row.id, key: own.key }] : [];
    });
    if (requests.length > 0) await runner.add(requests);
  }
}

export function againstHandler(store: Store, blobs: BlobStore, pool: WorkerPool, events: EventBus): JobHandler {
  /** Writes down what came of a job, unless something else is wanted by now. */
  async function done(job: { subjectId: string; key: string; trialId: string | null }, made: (wanted: Wanted) => Against): Promise<void> {
    const row = await store.write(async (tables) => {
      const found = await wantedOf(tables, job.subjectId);
      if (found?.wanted.key !== job.key) return null;
      await keep(tables, job.subjectId, made(found.wanted));
      return found.row;
    });
    if (row && job.trialId) events.tell(job.trialId, { type: 'file', fileId: row.fileId });
  }
  return {
    resumes: true,
    async run(job, signal) {
      const found = await wantedOf(store, job.subjectId);
      if (found?.wanted.key !== job.key) return;
      const placeOf = ({ sha256, channels, startS, endS }: Placed) => ({
        path: blobs.pathOf(sha256),
        channels: channelsIn(channels),
        span: [startS, endS] as [number | null, number | null],
      });
      const compared: ComparedPair = await pool.run({ kind: 'pair', channel: placeOf(found.row), reference: placeOf(found.wanted.reference) }, signal);
      await done(job, ({ key, reference }) => ({ key, referenceId: reference.id, figures: pairFigures(compared.pair), warnings: compared.warnings }));
    },
    async ended(job, _state, failure) {
      await done(job, ({ key, reference }) => ({ key, referenceId: reference.id, figures: {}, warnings: [failure] }));
    },
  };
}

const ofItself = ({ key, reference }: Wanted): Against => ({ key, referenceId: reference.id, figures: OF_ITSELF, warnings: [] });

/** Puts the figures of a pair among those of a recording, in place of what was there. */
async function keep(tables: Tables, id: string, against: Against | null): Promise<void> {
  const [{ figures } = { figures: null }] = await tables.recordings.find({ select: { id: true, figures: true }, where: { id } });
  if (!figures) return void (await tables.recordings.update({ id }, { against }));
  const own = Object.fromEntries(Object.entries(figures).filter(([measure]) => !measure.startsWith('pair.')));
  const now = { ...own, ...against?.figures };
  await tables.recordings.update({ id }, { against, figures: now, shown: shownFigures(now) });
}

async function wantedOf(from: ReadTables, recordingId: string): Promise<{ row: Placed; wanted: Wanted } | null> {
  const [at] = await from.query<{ trialId: string; takeId: string | null }>('SELECT "trialId", "takeId" FROM "recording" WHERE "id" = ?', [recordingId]);
  if (!at?.takeId) return null;
  const { rows, wanted } = await wantedIn(from, at.trialId, [at.takeId]);
  const [row, own] = [rows.find((each) => each.id === recordingId), wanted.get(recordingId)];
  return row && own ? { row, wanted: own } : null;
}

/** What each measured recording of some takes is to be measured against. */
async function wantedIn(from: ReadTables, trialId: string, takeIds: readonly (string | null)[] | 'all'): Promise<{ rows: Placed[]; wanted: Map<string, Wanted> }> {
  const trial = await from.trials.findOne({ select: { id: true, reference: true }, where: { id: trialId } });
  const wanted = new Map<string, Wanted>();
  const meant = takeIds === 'all' ? 'all' : [...new Set(takeIds.flatMap((id) => id ?? []))];
  const rows = await placedIn(from, trialId, meant);
  if (!trial?.reference) return { rows, wanted };
  const inTakes = [...new Set(rows.flatMap((row) => row.takeId ?? []))];
  const takes = await inParts(inTakes, (part) => from.takes.find({ select: { id: true, condition: true, setups: true }, where: { ...present(trialId), id: part } }));
  for (const take of takes) {
    const own = rows.filter((row): row is Placed & { setupId: string } => row.takeId === take.id && row.setupId !== null);
    for (const [id, referenceId] of referencesOf(take, own, trial.reference as Reference)) {
      const [row, reference] = [own.find((each) => each.id === id) as Placed, own.find((each) => each.id === referenceId) as Placed];
      wanted.set(id, { reference, key: `v${METHOD_VERSION} ${placeKey(row)} against ${placeKey(reference)}` });
    }
  }
  return { rows, wanted };
}

const channelsIn = (text: string) => JSON.parse(text) as number[];

/** Which sound it is; a stretch of a file is named only where it is one, so that what was measured before stays. */
const placeKey = ({ sha256, channels, startS, endS }: Placed) =>
  `${sha256}:${channelsIn(channels).join('+')}${startS === null && endS === null ? '' : `@${startS ?? 0}-${endS ?? ''}`}`;

/** Measured recordings, and what they were last measured against; those of a take, or also those that lost theirs. */
async function placedIn(from: Pick<ReadTables, 'query'>, trialId: string, takeIds: readonly string[] | 'all'): Promise<Placed[]> {
  const [where, values] = takeIds === 'all' ? ['1', []] : [`(r."takeId" IN (${takeIds.map(() => '?').join(', ')}) OR (r."takeId" IS NULL AND r."against" IS NOT NULL))`, takeIds];
  return from.query<Placed>(
    `SELECT r."id", r."fileId", r."takeId", r."setupId", r."channels", r."startS", r."endS", json_extract(r."against", '$.key') AS "key", f."sha256"
      FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId"
      WHERE r."trialId" = ? AND f."binnedAtMs" IS NULL AND f."state" = 'done' AND ${where} ORDER BY r."fileId", r."channels"`,
    [trialId, ...values],
  );
}
