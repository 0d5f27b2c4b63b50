import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What of a file the rows of its recordings are judged by. */
const JUDGED_OF_FILE = '"name", "uploadedAtMs", "warnings", "state", "binnedAtMs"';

// Two statements, since a conflict clause within a trigger gives way to that of the statement that fired it.
const noted = (what: string, id: string, trialId: string) => `
  DELETE FROM "row_change" WHERE "what" = '${what}' AND "id" = ${id};
  INSERT INTO "row_change" ("what", "id", "trialId") VALUES ('${what}', ${id}, ${trialId});`;

const TRIGGERS = ['take', 'recording'].flatMap((table) => [
  `CREATE TRIGGER "${table}_added" AFTER INSERT ON "${table}" BEGIN ${noted(table, 'NEW."id"', 'NEW."trialId"')} END`,
  `CREATE TRIGGER "${table}_changed" AFTER UPDATE ON "${table}" BEGIN ${noted(table, 'NEW."id"', 'NEW."trialId"')} END`,
  `CREATE TRIGGER "${table}_gone" AFTER DELETE ON "${table}" BEGIN ${noted(table, 'OLD."id"', 'OLD."trialId"')} END`,
]);

const FILE_TRIGGER = `CREATE TRIGGER "audio_file_changed" AFTER UPDATE OF ${JUDGED_OF_FILE} ON "audio_file" BEGIN
  DELETE FROM "row_change" WHERE "what" = 'recording' AND "id" IN (SELECT "id" FROM "recording" WHERE "fileId" = NEW."id");
  INSERT INTO "row_change" ("what", "id", "trialId") SELECT 'recording', "id", "trialId" FROM "recording" WHERE "fileId" = NEW."id"; END`;

/**
 * Which takes and recordings changed last, each once, in the order in which they did: what is worked out
 * over thousands of rows reads again only those that changed since it looked last.
 */
export class RowChanges1764500000000 implements MigrationInterface {
  name = 'RowChanges1764500000000';

  async up(run: QueryRunner): Promise<void> {
    for (const statement of [
      'CREATE TABLE "row_change" ("no" integer PRIMARY KEY AUTOINCREMENT NOT NULL, "what" text NOT NULL, "id" text NOT NULL, "trialId" text NOT NULL)',
      'CREATE UNIQUE INDEX "row_change_row" ON "row_change" ("what", "id")',
      'CREATE INDEX "row_change_trial" ON "row_change" ("trialId", "no")',
      ...TRIGGERS,
      FILE_TRIGGER,
    ]) {
      await run.query(statement);
    }
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
