import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Frames with who is in them and what hears them, drawn to scale. */
export class Frames1764800000000 implements MigrationInterface {
  name = 'Frames1764800000000';

  async up(run: QueryRunner): Promise<void> {
    await run.query(`CREATE TABLE "frame" ("id" text PRIMARY KEY NOT NULL, "trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "name" text NOT NULL, "stationId" text,
      "camera" text NOT NULL, "ceilingM" real, "talkers" text NOT NULL, "booms" text NOT NULL, "operator" text NOT NULL, "marginM" real NOT NULL, "remark" text NOT NULL, "position" integer NOT NULL,
      "version" integer NOT NULL, "binnedAtMs" integer)`);
    await run.query('CREATE INDEX "frame_trial" ON "frame" ("trialId")');
  }

  async down(): Promise<void> {
    throw new Error('There is no way back but the copy in the folder backups that was made before this change');
  }
}
