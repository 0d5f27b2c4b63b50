import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Bodies with what they wear, what was seen of it, what stands in the way of poles, and what was odd in takes. */
export class Bodies1764900000000 implements MigrationInterface {
  name = 'Bodies1764900000000';

  async up(run: QueryRunner): Promise<void> {
    for (const column of ['"spot" text', '"at" text', '"frameId" text', '"boomId" text']) await run.query(`ALTER TABLE "placement" ADD COLUMN ${column}`);
    for (const column of [`"cover" text NOT NULL DEFAULT 'none'`, `"layers" text NOT NULL DEFAULT '[]'`, '"faces" text', '"address" text'])
      await run.query(`ALTER TABLE "rig" ADD COLUMN ${column}`);
    await run.query('ALTER TABLE "frame" ADD COLUMN "light" text');
    for (const column of ['incidents', 'tried']) await run.query(`ALTER TABLE "take" ADD COLUMN "${column}" text NOT NULL DEFAULT '[]'`);
    await run.query(`ALTER TABLE "frame" ADD COLUMN "dangers" text NOT NULL DEFAULT '[]'`);
    await run.query(`CREATE TABLE "wearer" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "name" text NOT NULL, "build" text NOT NULL,
      "heightM" real NOT NULL, "hair" text NOT NULL, "head" text NOT NULL, "glasses" boolean NOT NULL, "transmitterDeg" real NOT NULL, "radioMhz" real NOT NULL, "consent" text NOT NULL,
      "remark" text NOT NULL, "position" integer NOT NULL, "version" integer NOT NULL, "binnedAtMs" integer)`);
    await run.query(`CREATE TABLE "sight" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "placementId" text NOT NULL, "rigId" text,
      "frameId" text, "seen" text NOT NULL, "askedBy" text NOT NULL, "answeredBy" text NOT NULL, "atMs" integer NOT NULL, "spot" text, "remark" text NOT NULL, "version" integer NOT NULL,
      "binnedAtMs" integer)`);
    for (const table of ['wearer', 'sight']) await run.query(`CREATE INDEX "${table}_trial" ON "${table}" ("trialId")`);
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
