import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Rounds that are heard by comparing two or three clips at a time, or put in order, and what was answered; checks that are hidden among
 * clips; guesses which is which; rounds that are closed by hand; listeners who get a page; notes at a moment of a recording; what a role asks
 * of its gear.
 */
export class Comparisons1765400000000 implements MigrationInterface {
  name = 'Comparisons1765400000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "round" ADD COLUMN "kind" text NOT NULL DEFAULT 'scores'`);
    await run.query('ALTER TABLE "round" ADD COLUMN "comparisons" integer');
    await run.query(`ALTER TABLE "round" ADD COLUMN "checks" text NOT NULL DEFAULT '[]'`);
    await run.query(`ALTER TABLE "round" ADD COLUMN "checkOf" text NOT NULL DEFAULT '[]'`);
    await run.query('ALTER TABLE "round" ADD COLUMN "steadyWeighs" integer NOT NULL DEFAULT 0');
    await run.query(`ALTER TABLE "round" ADD COLUMN "opens" text NOT NULL DEFAULT 'done'`);
    await run.query('ALTER TABLE "round" ADD COLUMN "closedAtMs" integer');
    await run.query('ALTER TABLE "listener" ADD COLUMN "comparisons" text');
    await run.query('ALTER TABLE "listener" ADD COLUMN "closedAtMs" integer');
    await run.query('ALTER TABLE "listener" ADD COLUMN "guess" text');
    await run.query(`ALTER TABLE "listener" ADD COLUMN "orders" text NOT NULL DEFAULT '{}'`);
    await run.query('ALTER TABLE "listener" ADD COLUMN "awayKey" text');
    await run.query(
      `CREATE TABLE "choice" ("listenerId" text NOT NULL REFERENCES "listener" ("id") ON DELETE CASCADE, "number" integer NOT NULL, "picks" text NOT NULL, "atMs" integer NOT NULL,
        PRIMARY KEY ("listenerId", "number"))`,
    );
    await run.query(
      `CREATE TABLE "moment" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE,
        "recordingId" text NOT NULL REFERENCES "recording" ("id") ON DELETE CASCADE, "atS" real NOT NULL, "note" text NOT NULL, "createdAtMs" integer NOT NULL, "binnedAtMs" integer)`,
    );
    await run.query('CREATE INDEX "moment_trial" ON "moment" ("trialId")');
    await run.query(
      `UPDATE "trial" SET "roles" = (SELECT json_group_array(json_patch('{"importance":1,"spares":0,"mustLock":false,"mustHide":false,"least":[]}', "value")) FROM json_each("roles"))`,
    );
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
