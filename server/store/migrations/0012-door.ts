import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Devices that were let in, who wrote which line of the log and by which clock, takes that are being recorded into the data folder, and files whose sound was taken out of them. */
export class Door1765100000000 implements MigrationInterface {
  name = 'Door1765100000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query('ALTER TABLE "log_line" ADD COLUMN "writer" text');
    await run.query('ALTER TABLE "log_line" ADD COLUMN "clockBehindMs" integer');
    await run.query(`CREATE TABLE "guest" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "role" text NOT NULL, "name" text NOT NULL,
      "listenerId" text, "keyHash" text NOT NULL, "certificate" text NOT NULL, "browser" text NOT NULL, "enteredAtMs" integer NOT NULL, "expiresAtMs" integer NOT NULL, "seenAtMs" integer NOT NULL,
      "putOutAtMs" integer, "clockBehindMs" integer, "refused" text)`);
    await run.query('ALTER TABLE "audio_file" ADD COLUMN "originalSha256" text');
    await run.query('CREATE UNIQUE INDEX "guest_key" ON "guest" ("keyHash")');
    await run.query(`CREATE TABLE "capture" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "takeId" text NOT NULL REFERENCES "take" ("id")
      ON DELETE CASCADE, "name" text NOT NULL, "channels" text NOT NULL, "sampleRateHz" integer NOT NULL, "startedAtMs" integer NOT NULL, "part" integer NOT NULL,
      "fileId" text, "failure" text)`);
    await run.query('CREATE INDEX "capture_trial" ON "capture" ("trialId")');
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
