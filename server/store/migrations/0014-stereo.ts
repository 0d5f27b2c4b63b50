import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Two channels as one stereo recording, how they go together; and channels that are the backup of another. */
export class Stereo1765300000000 implements MigrationInterface {
  name = 'Stereo1765300000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query('ALTER TABLE "recording" ADD COLUMN "stereo" text');
    await run.query('ALTER TABLE "recording" ADD COLUMN "backup" text');
    await run.query('ALTER TABLE "recording" ADD COLUMN "second" text');
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
