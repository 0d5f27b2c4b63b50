import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Events that somebody marked on a recording, or said are none. */
export class Corrections1764600000000 implements MigrationInterface {
  name = 'Corrections1764600000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "recording" ADD COLUMN "corrections" text NOT NULL DEFAULT '[]'`);
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
