import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS = ['inputMaxDbu', 'inputNoiseDbuA', 'gainMinDb', 'gainMaxDb', 'outputMaxDbu'];

/** What an item does to a level: largest input and output, input noise, range of gain. */
export class ItemLevels1764200000000 implements MigrationInterface {
  name = 'ItemLevels1764200000000';

  async up(run: QueryRunner): Promise<void> {
    for (const column of COLUMNS) await run.query(`ALTER TABLE "item" ADD COLUMN "${column}" real`);
  }

  async down(run: QueryRunner): Promise<void> {
    for (const column of COLUMNS) await run.query(`ALTER TABLE "item" DROP COLUMN "${column}"`);
  }
}
