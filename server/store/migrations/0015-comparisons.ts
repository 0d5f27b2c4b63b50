import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Rounds that are heard by comparing two or three clips at a time, and what was answered; checks that are hidden among clips; guesses which is which; rounds that are closed by hand. */
export class Comparisons1765400000000 implements MigrationInterface {
  name = 'Comparisons1765400000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query(`ALTER TABLE "round" ADD COLUMN "kind" text NOT NULL DEFAULT 'scores'`);
    await run.query('ALTER TABLE "round" ADD COLUMN "comparisons" integer');
    await run.query(`ALTER TABLE "round" ADD COLUMN "checks" text NOT NULL DEFAULT '[]'`);
    await run.query(`ALTER TABLE "round" ADD COLUMN "checkOf" text NOT NULL DEFAULT '[]'`);
    await run.query(`ALTER TABLE "round" ADD COLUMN "opens" text NOT NULL DEFAULT 'done'`);
    await run.query('ALTER TABLE "round" ADD COLUMN "closedAtMs" integer');
    await run.query('ALTER TABLE "listener" ADD COLUMN "comparisons" text');
    await run.query('ALTER TABLE "listener" ADD COLUMN "closedAtMs" integer');
    await run.query('ALTER TABLE "listener" ADD COLUMN "guess" text');
    await run.query(
      `CREATE TABLE "choice" ("listenerId" text NOT NULL REFERENCES "listener" ("id") ON DELETE CASCADE, "number" integer NOT NULL, "picks" text NOT NULL, "atMs" integer NOT NULL,
        PRIMARY KEY ("listenerId", "number"))`,
    );
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
