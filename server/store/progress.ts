import type { TrialProgress } from '@marvet/core/domain/trial';
import type { TrialRow } from './rows.ts';
import type { Store } from './store.ts';

const COUNTS = `WITH "wanted" AS (SELECT ? AS "id") SELECT
  (SELECT COUNT(*) FROM "criterion" WHERE "trialId" = (SELECT "id" FROM "wanted") AND "binnedAtMs" IS NULL) AS "criteria",
  (SELECT COUNT(*) FROM "chain" WHERE "trialId" = (SELECT "id" FROM "wanted") AND "binnedAtMs" IS NULL AND "candidate" = 1) AS "candidates",
  (SELECT COUNT(*) FROM "take" WHERE "trialId" = (SELECT "id" FROM "wanted") AND "binnedAtMs" IS NULL AND "status" <> 'skipped') AS "planned",
  (SELECT COUNT(*) FROM "take" WHERE "trialId" = (SELECT "id" FROM "wanted") AND "binnedAtMs" IS NULL AND "status" = 'done') AS "done",
  (SELECT COUNT(*) FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId" WHERE r."trialId" = (SELECT "id" FROM "wanted") AND f."binnedAtMs" IS NULL) AS "recordings",
  (SELECT COUNT(*) FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId" WHERE r."trialId" = (SELECT "id" FROM "wanted") AND f."binnedAtMs" IS NULL AND f."state" = 'done') AS "measured",
  (SELECT COUNT(*) FROM "audio_file" WHERE "trialId" = (SELECT "id" FROM "wanted") AND "binnedAtMs" IS NULL AND "state" IN ('queued', 'measuring')) AS "measuring",
  (SELECT COUNT(*) FROM "listener" l JOIN "round" s ON s."id" = l."roundId"
    WHERE s."trialId" = (SELECT "id" FROM "wanted") AND s."binnedAtMs" IS NULL AND l."binnedAtMs" IS NULL AND l."finishedAtMs" IS NOT NULL) AS "listeners"`;

/** How far each stage of a trial is. */
export async function trialProgress(store: Store, trial: Pick<TrialRow, 'id' | 'verdictOpenedAtMs'>): Promise<TrialProgress> {
  const [counts] = (await store.dataSource.query(COUNTS, [trial.id])) as Omit<TrialProgress, 'verdictOpened'>[];
  return { ...(counts as Omit<TrialProgress, 'verdictOpened'>), verdictOpened: trial.verdictOpenedAtMs !== null };
}
