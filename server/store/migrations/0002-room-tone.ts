import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Room tone of a recording may be marked by hand; it then wins over the pauses that were found. */
export class RoomTone1764100000000 implements MigrationInterface {
  name = 'RoomTone1764100000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query('ALTER TABLE "recording" ADD COLUMN "roomTone" text');
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query('ALTER TABLE "recording" DROP COLUMN "roomTone"');
  }
}
