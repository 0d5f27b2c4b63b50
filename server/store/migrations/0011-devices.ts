import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Devices with what they told, second by second; what was pressed on range walks; and recordings that begin where something was switched. */
export class Devices1765000000000 implements MigrationInterface {
  name = 'Devices1765000000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "take" ADD COLUMN "walk" text NOT NULL DEFAULT '[]'`);
    await run.query(`ALTER TABLE "take" ADD COLUMN "meters" text NOT NULL DEFAULT '{}'`);
    await run.query('ALTER TABLE "recording" ADD COLUMN "cutBy" text');
    await run.query(`CREATE TABLE "device" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "name" text NOT NULL, "kind" text NOT NULL,
      "way" text NOT NULL, "on" boolean NOT NULL, "ties" text NOT NULL, "about" text, "calibrationDb" real, "remark" text NOT NULL, "position" integer NOT NULL, "version" integer NOT NULL,
      "binnedAtMs" integer)`);
    await run.query('CREATE INDEX "device_trial" ON "device" ("trialId")');
    await run.query(`CREATE TABLE "reading" ("deviceId" text NOT NULL REFERENCES "device" ("id") ON DELETE CASCADE, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE,
      "atS" integer NOT NULL, "values" text NOT NULL, PRIMARY KEY ("deviceId", "atS"))`);
    await run.query(`CREATE TABLE "voice_note" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "takeId" text NOT NULL REFERENCES "take" ("id")
      ON DELETE CASCADE, "sha256" text NOT NULL, "type" text NOT NULL, "lengthS" real NOT NULL, "addedAtMs" integer NOT NULL, "binnedAtMs" integer)`);
    await run.query('CREATE INDEX "voice_note_trial" ON "voice_note" ("trialId")');
    await run.query('CREATE INDEX "reading_trial" ON "reading" ("trialId", "atS")');
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
