import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the recordings of a take are measured against, and what came of it. */
export class Reference1764700000000 implements MigrationInterface {
  name = 'Reference1764700000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "trial" ADD COLUMN "reference" text`);
    await run.query(`ALTER TABLE "recording" ADD COLUMN "against" text`);
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
