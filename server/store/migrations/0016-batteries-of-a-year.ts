import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a battery costs, and how many hours a year the gear is used, so that a price holds its batteries. */
export class BatteriesOfAYear1765500000000 implements MigrationInterface {
  name = 'BatteriesOfAYear1765500000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query('ALTER TABLE "item" ADD COLUMN "batteryPrice" real');
    await run.query('ALTER TABLE "trial" ADD COLUMN "hoursAYear" real');
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
