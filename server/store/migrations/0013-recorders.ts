import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which recorder wrote a file and when, by its own clock; where in it takes began; what somebody said of recorders: their clock, and which candidate each channel is of. */
export class Recorders1765200000000 implements MigrationInterface {
  name = 'Recorders1765200000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query('ALTER TABLE "audio_file" ADD COLUMN "modifiedAtMs" integer');
    await run.query('ALTER TABLE "audio_file" ADD COLUMN "recorder" text');
    await run.query('ALTER TABLE "recording" ADD COLUMN "logStartS" real');
    await run.query(`CREATE TABLE "recorder" ("trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "name" text NOT NULL, "aheadS" real, "candidateIds" text NOT NULL,
      PRIMARY KEY ("trialId", "name"))`);
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
