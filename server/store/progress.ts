import type { TrialProgress } from '@marvet/core/domain/trial';
import type { TrialRow } from './records.ts';
import type { ReadTables } from './store.ts';

type Counts = Omit<TrialProgress, 'verdictOpened'>;

const count = (name: keyof Counts, from: string) => `SELECT "trialId", '${name}' AS "what", COUNT(*) AS "count" FROM ${from} GROUP BY "trialId"`;
const RECORDED = '(SELECT r."trialId", f."state" FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId" WHERE f."binnedAtMs" IS NULL)';

/** How far the stages of trials are, for all of them in one query. */
const COUNTS = [
  count('criteria', '"criterion" WHERE "binnedAtMs" IS NULL'),
  count('candidates', '"chain" WHERE "binnedAtMs" IS NULL AND "candidate" = 1'),
  count('frames', '"frame" WHERE "binnedAtMs" IS NULL'),
  count('planned', `"take" WHERE "binnedAtMs" IS NULL AND "status" <> 'skipped'`),
  count('done', `"take" WHERE "binnedAtMs" IS NULL AND "status" = 'done'`),
  count('recordings', RECORDED),
  count('measured', `${RECORDED} WHERE "state" = 'done'`),
  count('measuring', `"audio_file" WHERE "binnedAtMs" IS NULL AND "state" IN ('queued', 'measuring')`),
  count(
    'listeners',
    // People, and not seats: whoever sits in two rounds is one.
    `(SELECT DISTINCT s."trialId", lower(trim(l."name")) FROM "listener" l JOIN "round" s ON s."id" = l."roundId" WHERE s."binnedAtMs" IS NULL AND l."binnedAtMs" IS NULL AND l."finishedAtMs" IS NOT NULL)`,
  ),
].join(' UNION ALL ');

const NOTHING: Counts = { criteria: 0, candidates: 0, frames: 0, planned: 0, done: 0, recordings: 0, measured: 0, measuring: 0, listeners: 0 };

/** Counts for the navigation, by trial. */
export async function trialsProgress(store: Pick<ReadTables, 'query'>, trials: readonly TrialRow[]): Promise<Map<string, TrialProgress>> {
  const only = trials.length === 1 ? trials[0]?.id : undefined;
  const sql = `SELECT * FROM (${COUNTS})${only === undefined ? '' : ' WHERE "trialId" = ?'}`;
  const rows = await store.query<{ trialId: string; what: keyof Counts; count: number }>(sql, only === undefined ? [] : [only]);
  const counts = new Map<string, Counts>();
  for (const { trialId, what, count: value } of rows) counts.set(trialId, { ...NOTHING, ...counts.get(trialId), [what]: value });
  return new Map(trials.map((trial) => [trial.id, { ...NOTHING, ...counts.get(trial.id), verdictOpened: trial.verdictOpenedAtMs !== null }]));
}
