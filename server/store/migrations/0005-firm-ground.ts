import { randomUUID } from 'node:crypto';
import type { MigrationInterface, QueryRunner } from 'typeorm';

const TRIAL = 'REFERENCES "trial" ("id") ON DELETE CASCADE';
const VERSIONED = ['trial', 'criterion', 'item', 'chain', 'station', 'script', 'plan'];
const ACOUSTICS = '{"sizeM":null,"absorption":null,"noiseDba":null,"noiseSlopeDb":null,"hum":null,"windMs":null}';
const COLUMNS: Record<string, string[]> = {
  trial: ['"slatesSpoken" boolean', '"passes" text'],
  criterion: ['"otherWorst" real'],
  item: ['"lineInputMaxDbu" real', '"converterNoiseDbfsA" real', '"lossDb" real', `"radioSystem" text NOT NULL DEFAULT ''`, `"outputWiring" text NOT NULL DEFAULT ''`],
  station: [`"acoustics" text NOT NULL DEFAULT '${ACOUSTICS}'`],
  plan: [`"atOnce" text NOT NULL DEFAULT '[]'`, `"removedLevels" text NOT NULL DEFAULT '[]'`],
};

const AUDIO_FILE = `CREATE TABLE "audio_file_new" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL ${TRIAL}, "name" text NOT NULL, "sha256" text NOT NULL,
  "sizeBytes" integer NOT NULL, "uploadedAtMs" integer NOT NULL, "format" text NOT NULL, "state" text NOT NULL, "failure" text, "methodVersion" integer,
  "warnings" text NOT NULL, "programme" text, "slateSpoken" boolean, "binnedAtMs" integer)`;
const RECORDING = `CREATE TABLE "recording_new" ("id" text PRIMARY KEY NOT NULL, "fileId" text NOT NULL REFERENCES "audio_file" ("id") ON DELETE CASCADE,
  "trialId" text NOT NULL ${TRIAL}, "channels" text NOT NULL, "startS" real, "endS" real, "trackName" text, "takeId" text REFERENCES "take" ("id") ON DELETE SET NULL,
  "setupId" text, "matchedBy" text, "figures" text, "shown" text, "report" text, "series" text, "roomTone" text, "performance" text)`;
const PLACEMENT = `CREATE TABLE "placement" ("id" text PRIMARY KEY NOT NULL, "trialId" text ${TRIAL}, "name" text NOT NULL, "on" text NOT NULL, "belowChinM" real, "heightM" real,
  "distanceM" real, "offAxisDeg" real, "aimDeg" real, "remark" text NOT NULL, "version" integer NOT NULL, "binnedAtMs" integer)`;
const RIG = `CREATE TABLE "rig" ("id" text PRIMARY KEY NOT NULL, "trialId" text ${TRIAL}, "name" text NOT NULL, "fixing" text NOT NULL, "clothLayers" integer NOT NULL,
  "clothLossDb" real, "cloth" text NOT NULL, "capLiftDb" real, "strainRelief" boolean, "onSkin" boolean NOT NULL, "remark" text NOT NULL, "version" integer NOT NULL,
  "binnedAtMs" integer)`;
const JOB = `CREATE TABLE "job" ("id" text PRIMARY KEY NOT NULL, "kind" text NOT NULL, "trialId" text, "subjectId" text NOT NULL, "key" text NOT NULL, "priority" integer NOT NULL,
  "state" text NOT NULL, "attempts" integer NOT NULL, "progress" real NOT NULL, "failure" text, "createdAtMs" integer NOT NULL, "endedAtMs" integer)`;

/** The figures that tables show, as the fifth schema first had them. */
const SHOWN = ['noise.snrDb', 'noise.practicalFloorDbfsA', 'loudness.integratedLufs', 'levels.truePeakDbtp', 'levels.clippedRuns'];

interface OldTake {
  id: string;
  candidateIds: string;
  flags: string;
  gains: string;
}
interface OldRecording {
  id: string;
  fileId: string;
  trialId: string;
  channelIndex: number;
  trackName: string | null;
  candidateId: string | null;
  figures: string | null;
  report: string | null;
  series: string | null;
  roomTone: string | null;
  takeId: string | null;
  matchedBy: string | null;
}

/**
 * Setups within a take, recordings as spans tied to a setup, versions of what is changed whole, jobs,
 * placements and rigs as records, acoustics of stations. A listening session is a round from here on.
 */
export class FirmGround1764400000000 implements MigrationInterface {
  name = 'FirmGround1764400000000';

  async up(run: QueryRunner): Promise<void> {
    for (const table of VERSIONED) await run.query(`ALTER TABLE "${table}" ADD COLUMN "version" integer NOT NULL DEFAULT 1`);
    for (const [table, columns] of Object.entries(COLUMNS)) for (const column of columns) await run.query(`ALTER TABLE "${table}" ADD COLUMN ${column}`);
    const setupIds = await this.takesGetSetups(run);
    await this.recordingsFindTheirSetup(run, setupIds);
    await run.query('ALTER TABLE "session" RENAME TO "round"');
    await run.query('ALTER TABLE "listener" RENAME COLUMN "sessionId" TO "roundId"');
    await run.query('ALTER TABLE "round" ADD COLUMN "cuts" text');
    await run.query('ALTER TABLE "round" ADD COLUMN "lengthS" real');
    for (const statement of [
      PLACEMENT,
      RIG,
      JOB,
      'CREATE INDEX "job_state" ON "job" ("state", "priority")',
      'CREATE INDEX "job_subject" ON "job" ("kind", "subjectId")',
      'CREATE INDEX "take_order" ON "take" ("trialId", "position", "pass")',
      'CREATE INDEX "round_trial" ON "round" ("trialId")',
      'CREATE INDEX "listener_round" ON "listener" ("roundId")',
      'CREATE INDEX "log_line_take" ON "log_line" ("takeId")',
      'CREATE INDEX "station_trial" ON "station" ("trialId")',
      'CREATE INDEX "script_trial" ON "script" ("trialId")',
      'CREATE INDEX "mark_trial" ON "mark" ("trialId")',
    ]) {
      await run.query(statement);
    }
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }

  /** Each candidate of a take becomes a setup of it; gains and flags follow. Returns the setup of each take and candidate. */
  private async takesGetSetups(run: QueryRunner): Promise<Map<string, string>> {
    await run.query(`ALTER TABLE "take" ADD COLUMN "setups" text NOT NULL DEFAULT '[]'`);
    const setupIds = new Map<string, string>();
    for (const take of (await run.query('SELECT "id", "candidateIds", "flags", "gains" FROM "take"')) as OldTake[]) {
      const setups = (JSON.parse(take.candidateIds) as string[]).map((candidateId) => ({ id: randomUUID(), candidateId, levels: {} }));
      for (const setup of setups) setupIds.set(`${take.id} ${setup.candidateId}`, setup.id);
      const gains = Object.entries(JSON.parse(take.gains) as Record<string, object>).flatMap(([candidateId, own]) => {
        const setup = setups.find((each) => each.candidateId === candidateId);
        return setup ? [[setup.id, own]] : [];
      });
      const flags = (JSON.parse(take.flags) as object[]).map((mark) => ({ id: randomUUID(), ...mark, setupIds: [] }));
      await run.query('UPDATE "take" SET "setups" = ?, "gains" = ?, "flags" = ? WHERE "id" = ?', [
        JSON.stringify(setups),
        JSON.stringify(Object.fromEntries(gains)),
        JSON.stringify(flags),
        take.id,
      ]);
    }
    await run.query('ALTER TABLE "take" DROP COLUMN "candidateIds"');
    return setupIds;
  }

  /** What take a recording is of is said by the recording, no longer by its file. */
  private async recordingsFindTheirSetup(run: QueryRunner, setupIds: ReadonlyMap<string, string>): Promise<void> {
    await run.query(RECORDING);
    const rows = (await run.query('SELECT r.*, f."takeId", f."matchedBy" FROM "recording" r JOIN "audio_file" f ON f."id" = r."fileId"')) as OldRecording[];
    for (const row of rows) {
      const figures = row.figures === null ? null : (JSON.parse(row.figures) as Record<string, number>);
      const shown = figures && SHOWN.map((id) => figures[id] ?? null);
      await run.query(
        `INSERT INTO "recording_new" ("id", "fileId", "trialId", "channels", "trackName", "takeId", "setupId", "matchedBy", "figures", "shown", "report", "series", "roomTone")
          VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
        [
          row.id,
          row.fileId,
          row.trialId,
          JSON.stringify([row.channelIndex]),
          row.trackName,
          row.takeId,
          setupIds.get(`${row.takeId} ${row.candidateId}`) ?? null,
          row.matchedBy,
          row.figures,
          shown && JSON.stringify(shown),
          row.report,
          row.series,
          row.roomTone,
        ],
      );
    }
    await run.query(AUDIO_FILE);
    await run.query(`INSERT INTO "audio_file_new" ("id", "trialId", "name", "sha256", "sizeBytes", "uploadedAtMs", "format", "state", "failure", "methodVersion", "warnings", "programme", "binnedAtMs")
      SELECT "id", "trialId", "name", "sha256", "sizeBytes", "uploadedAtMs", "format", "state", "failure", "methodVersion", "warnings", "programme", "binnedAtMs" FROM "audio_file"`);
    for (const table of ['recording', 'audio_file']) {
      await run.query(`DROP TABLE "${table}"`);
      await run.query(`ALTER TABLE "${table}_new" RENAME TO "${table}"`);
    }
    for (const statement of [
      'CREATE UNIQUE INDEX "audio_file_bytes" ON "audio_file" ("trialId", "sha256")',
      'CREATE INDEX "audio_file_state" ON "audio_file" ("state")',
      'CREATE INDEX "audio_file_hash" ON "audio_file" ("sha256")',
      'CREATE INDEX "recording_file" ON "recording" ("fileId")',
      'CREATE INDEX "recording_trial" ON "recording" ("trialId")',
      'CREATE INDEX "recording_take" ON "recording" ("takeId")',
    ]) {
      await run.query(statement);
    }
  }
}
