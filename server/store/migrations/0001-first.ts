import type { MigrationInterface, QueryRunner } from 'typeorm';

const TRIAL = 'REFERENCES "trial" ("id") ON DELETE CASCADE';

/** The first schema. */
export class First1764000000000 implements MigrationInterface {
  name = 'First1764000000000';

  async up(run: QueryRunner): Promise<void> {
    const statements = [
      `CREATE TABLE "trial" ("id" text PRIMARY KEY NOT NULL, "name" text NOT NULL, "question" text NOT NULL, "use" text NOT NULL, "place" text NOT NULL,
        "sample" boolean NOT NULL, "createdAtMs" integer NOT NULL, "binnedAtMs" integer, "expectedCandidateId" text, "expectedReason" text NOT NULL,
        "expectedSealedAtMs" integer, "verdictOpenedAtMs" integer)`,
      `CREATE TABLE "criterion" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "name" text NOT NULL, "kind" text NOT NULL, "measureId" text,
        "weight" real NOT NULL, "best" real NOT NULL, "worst" real NOT NULL, "dealbreaker" text, "remark" text NOT NULL, "position" integer NOT NULL, "binnedAtMs" integer)`,
      `CREATE INDEX "criterion_trial" ON "criterion" ("trialId")`,
      `CREATE TABLE "item" ("id" text PRIMARY KEY NOT NULL, "kind" text NOT NULL, "name" text NOT NULL, "price" real, "currency" text NOT NULL, "weightG" real,
        "pattern" text, "selfNoiseDba" real, "sensitivityMvPerPa" real, "maxSplDb" real, "batteryType" text NOT NULL, "batteryCount" integer NOT NULL,
        "runningTimeH" real, "remark" text NOT NULL, "binnedAtMs" integer)`,
      `CREATE TABLE "chain" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "name" text NOT NULL, "links" text NOT NULL, "rig" text NOT NULL,
        "candidate" boolean NOT NULL, "tape" text NOT NULL, "remark" text NOT NULL, "position" integer NOT NULL, "binnedAtMs" integer)`,
      `CREATE INDEX "chain_trial" ON "chain" ("trialId")`,
      `CREATE TABLE "mark" ("chainId" text NOT NULL REFERENCES "chain" ("id") ON DELETE CASCADE, "criterionId" text NOT NULL REFERENCES "criterion" ("id") ON DELETE CASCADE,
        "trialId" text NOT NULL ${TRIAL}, "points" real, "remark" text NOT NULL, PRIMARY KEY ("chainId", "criterionId"))`,
      `CREATE TABLE "station" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "name" text NOT NULL, "surfaces" text NOT NULL, "noise" text NOT NULL,
        "indoors" boolean NOT NULL, "hazards" text NOT NULL, "remark" text NOT NULL, "position" integer NOT NULL, "binnedAtMs" integer)`,
      `CREATE TABLE "script" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "name" text NOT NULL, "text" text NOT NULL, "purpose" text NOT NULL,
        "talker" text NOT NULL, "lengthS" real NOT NULL, "position" integer NOT NULL, "binnedAtMs" integer)`,
      `CREATE TABLE "plan" ("trialId" text PRIMARY KEY NOT NULL ${TRIAL}, "factors" text NOT NULL, "leftOut" text NOT NULL, "together" boolean NOT NULL,
        "controls" text NOT NULL, "changeTimesS" text NOT NULL, "overheadS" real NOT NULL, "committedAtMs" integer)`,
      `CREATE TABLE "take" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "slate" integer NOT NULL, "pass" integer NOT NULL, "position" integer NOT NULL,
        "condition" text NOT NULL, "candidateIds" text NOT NULL, "status" text NOT NULL, "startedAtMs" integer, "stoppedAtMs" integer, "flags" text NOT NULL,
        "note" text NOT NULL, "gains" text NOT NULL, "windMs" real, "noiseDba" real, "controls" text NOT NULL, "binnedAtMs" integer)`,
      `CREATE UNIQUE INDEX "take_slate" ON "take" ("trialId", "slate", "pass")`,
      `CREATE TABLE "log_line" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "takeId" text NOT NULL, "atMs" integer NOT NULL,
        "receivedAtMs" integer NOT NULL, "line" text NOT NULL)`,
      `CREATE INDEX "log_line_trial" ON "log_line" ("trialId", "atMs")`,
      `CREATE TABLE "audio_file" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "name" text NOT NULL, "sha256" text NOT NULL, "sizeBytes" integer NOT NULL,
        "uploadedAtMs" integer NOT NULL, "format" text NOT NULL, "state" text NOT NULL, "failure" text, "methodVersion" integer, "warnings" text NOT NULL,
        "programme" text, "takeId" text REFERENCES "take" ("id") ON DELETE SET NULL, "matchedBy" text, "binnedAtMs" integer)`,
      `CREATE UNIQUE INDEX "audio_file_bytes" ON "audio_file" ("trialId", "sha256")`,
      `CREATE INDEX "audio_file_state" ON "audio_file" ("state")`,
      `CREATE TABLE "recording" ("id" text PRIMARY KEY NOT NULL, "fileId" text NOT NULL REFERENCES "audio_file" ("id") ON DELETE CASCADE, "trialId" text NOT NULL ${TRIAL},
        "channelIndex" integer NOT NULL, "trackName" text, "candidateId" text, "figures" text, "report" text, "series" text)`,
      `CREATE UNIQUE INDEX "recording_channel" ON "recording" ("fileId", "channelIndex")`,
      `CREATE INDEX "recording_trial" ON "recording" ("trialId")`,
      `CREATE TABLE "session" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "title" text NOT NULL, "recordingIds" text NOT NULL, "criterionIds" text NOT NULL,
        "targetLufs" real NOT NULL, "ceilingDbtp" real NOT NULL, "matchedLufs" real NOT NULL, "gainsDb" text NOT NULL, "sample" boolean NOT NULL,
        "createdAtMs" integer NOT NULL, "binnedAtMs" integer)`,
      `CREATE TABLE "listener" ("id" text PRIMARY KEY NOT NULL, "sessionId" text NOT NULL REFERENCES "session" ("id") ON DELETE CASCADE, "name" text NOT NULL,
        "listenedOn" text NOT NULL, "sample" boolean NOT NULL, "createdAtMs" integer NOT NULL, "finishedAtMs" integer, "order" text NOT NULL, "binnedAtMs" integer)`,
      `CREATE TABLE "rating" ("listenerId" text NOT NULL REFERENCES "listener" ("id") ON DELETE CASCADE, "letter" text NOT NULL, "criterionId" text NOT NULL,
        "points" integer NOT NULL, "reason" text NOT NULL, PRIMARY KEY ("listenerId", "letter", "criterionId"))`,
    ];
    for (const statement of statements) await run.query(statement);
  }

  async down(run: QueryRunner): Promise<void> {
    const tables = ['rating', 'listener', 'session', 'recording', 'audio_file', 'log_line', 'take', 'plan', 'script', 'station', 'mark', 'chain', 'item', 'criterion', 'trial'];
    for (const table of tables) await run.query(`DROP TABLE "${table}"`);
  }
}
