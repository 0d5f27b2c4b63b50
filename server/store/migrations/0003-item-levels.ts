import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS = [
  '"inputMaxDbu" real',
  '"inputNoiseDbuA" real',
  '"gainMinDb" real',
  '"gainMaxDb" real',
  '"outputMaxDbu" real',
  '"inputConnector" text',
  '"outputConnector" text',
  `"wiring" text NOT NULL DEFAULT ''`,
  '"powerNeeds" text',
  '"powerGives" text',
];

/** What an item does to a level, and what it can be joined with. */
export class ItemLevels1764200000000 implements MigrationInterface {
  name = 'ItemLevels1764200000000';

  async up(run: QueryRunner): Promise<void> {
    for (const column of COLUMNS) await run.query(`ALTER TABLE "item" ADD COLUMN ${column}`);
  }

  async down(run: QueryRunner): Promise<void> {
    for (const column of COLUMNS) await run.query(`ALTER TABLE "item" DROP COLUMN ${column.split(' ')[0]}`);
  }
}
