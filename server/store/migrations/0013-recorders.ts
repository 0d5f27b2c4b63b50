import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which recorder wrote a file and when, by its own clock; and clocks that somebody set. */
export class Recorders1765200000000 implements MigrationInterface {
  name = 'Recorders1765200000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query('ALTER TABLE "audio_file" ADD COLUMN "modifiedAtMs" integer');
    await run.query('ALTER TABLE "audio_file" ADD COLUMN "recorder" text');
    await run.query(`CREATE TABLE "recorder_clock" ("trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "recorder" text NOT NULL, "aheadS" real NOT NULL,
      PRIMARY KEY ("trialId", "recorder"))`);
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
