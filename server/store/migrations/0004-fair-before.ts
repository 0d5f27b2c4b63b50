import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS: Record<string, string[]> = {
  trial: [`"roles" text NOT NULL DEFAULT '[]'`, '"budget" text', `"comparisons" text NOT NULL DEFAULT '[]'`],
  criterion: [
    `"aggregation" text NOT NULL DEFAULT 'median'`,
    `"where" text NOT NULL DEFAULT '{}'`,
    `"worstWords" text NOT NULL DEFAULT ''`,
    `"bestWords" text NOT NULL DEFAULT ''`,
  ],
  item: [
    '"balancedInput" boolean',
    '"balancedOutput" boolean',
    '"channels" integer NOT NULL DEFAULT 1',
    '"owned" integer',
    `"sampleRatesHz" text NOT NULL DEFAULT '[]'`,
    `"wordLengths" text NOT NULL DEFAULT '[]'`,
    '"storageGb" real',
    '"frequencyLowHz" real',
    '"frequencyHighHz" real',
    `"switches" text NOT NULL DEFAULT ''`,
    `"sizeMm" text NOT NULL DEFAULT ''`,
    `"cable" text NOT NULL DEFAULT ''`,
    `"moisture" text NOT NULL DEFAULT ''`,
    '"address" text',
    `"inTheBox" text NOT NULL DEFAULT ''`,
    '"warrantyMonths" real',
    '"adapterPrice" real',
  ],
  chain: ['"split" text'],
  station: ['"latitudeDeg" real', '"longitudeDeg" real', '"needsDaylight" boolean NOT NULL DEFAULT 0'],
  plan: [
    `"rules" text NOT NULL DEFAULT '[]'`,
    `"design" text NOT NULL DEFAULT '{"kind":"full","base":{},"interactions":[],"ladder":{"kind":"noise","speechId":"","silenceId":""}}'`,
    '"repeats" integer NOT NULL DEFAULT 1',
    `"togetherLimits" text NOT NULL DEFAULT '{"tracks":8,"onChest":4,"apart":[]}'`,
    `"changeExceptions" text NOT NULL DEFAULT '[]'`,
    `"order" text NOT NULL DEFAULT '{"counterbalanced":false,"blockedBy":"none","pinned":[]}'`,
    `"day" text NOT NULL DEFAULT '{"startsAtMs":null,"endsAtMs":null,"breaks":[],"batteryChangeMin":5}'`,
    '"faultSearch" text',
  ],
};

const NEW_SETTINGS = { automaticLevel: null, noiseReduction: null, safetyTrackDb: null, wordLength: null, sampleRateHz: null, lineLevel: null, power: null };
const NEW_TIMES = { talker: 240, rig: 240, placement: 180, noise: 120, speed: 120, orientation: 20, processing: 20, effort: 15, other: 60 };
const OLD_EXPECTATION = ['expectedCandidateId', 'expectedReason', 'expectedSealedAtMs'];

/** Question, kit and plan in full: roles, expectations by person, settings, designs, the day, photographs, pre-flight. */
export class FairBefore1764300000000 implements MigrationInterface {
  name = 'FairBefore1764300000000';

  async up(run: QueryRunner): Promise<void> {
    for (const [table, columns] of Object.entries(COLUMNS)) for (const column of columns) await run.query(`ALTER TABLE "${table}" ADD COLUMN ${column}`);
    await run.query(`CREATE TABLE "expectation" ("trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "person" text NOT NULL, "candidateId" text NOT NULL,
      "reason" text NOT NULL, "sealedAtMs" integer NOT NULL, PRIMARY KEY ("trialId", "person"))`);
    await run.query(`INSERT INTO "expectation" SELECT "id", 'Mixer', "expectedCandidateId", "expectedReason", "expectedSealedAtMs" FROM "trial"
      WHERE "expectedCandidateId" IS NOT NULL AND "expectedSealedAtMs" IS NOT NULL`);
    for (const column of OLD_EXPECTATION) await run.query(`ALTER TABLE "trial" DROP COLUMN "${column}"`);
    await run.query(`CREATE TABLE "photo" ("id" text PRIMARY KEY NOT NULL, "ownerKind" text NOT NULL, "ownerId" text NOT NULL, "sha256" text NOT NULL, "type" text NOT NULL,
      "caption" text NOT NULL, "addedAtMs" integer NOT NULL, "binnedAtMs" integer)`);
    await run.query('CREATE INDEX "photo_owner" ON "photo" ("ownerKind", "ownerId")');
    await run.query(`CREATE TABLE "preflight" ("trialId" text NOT NULL REFERENCES "trial" ("id") ON DELETE CASCADE, "key" text NOT NULL, "person" text NOT NULL,
      "atMs" integer NOT NULL, PRIMARY KEY ("trialId", "key"))`);
    await this.rewrite(run, 'chain', 'id', 'links', (links: { settings: object }[]) => links.map((link) => ({ ...link, settings: { ...NEW_SETTINGS, ...link.settings } })));
    await this.rewrite(run, 'plan', 'trialId', 'changeTimesS', (times: object) => ({ ...NEW_TIMES, ...times }));
  }

  async down(run: QueryRunner): Promise<void> {
    await run.query('DROP TABLE "preflight"');
    await run.query('DROP TABLE "photo"');
    await run.query('ALTER TABLE "trial" ADD COLUMN "expectedCandidateId" text');
    await run.query(`ALTER TABLE "trial" ADD COLUMN "expectedReason" text NOT NULL DEFAULT ''`);
    await run.query('ALTER TABLE "trial" ADD COLUMN "expectedSealedAtMs" integer');
    for (const [from, to] of [
      ['candidateId', 'expectedCandidateId'],
      ['reason', 'expectedReason'],
      ['sealedAtMs', 'expectedSealedAtMs'],
    ]) {
      await run.query(`UPDATE "trial" SET "${to}" = (SELECT "${from}" FROM "expectation" WHERE "trialId" = "trial"."id" ORDER BY "person" LIMIT 1)
        WHERE EXISTS (SELECT 1 FROM "expectation" WHERE "trialId" = "trial"."id")`);
    }
    await run.query('DROP TABLE "expectation"');
    for (const [table, columns] of Object.entries(COLUMNS)) for (const column of columns) await run.query(`ALTER TABLE "${table}" DROP COLUMN ${column.split(' ')[0]}`);
  }

  private async rewrite<Value>(run: QueryRunner, table: string, key: string, column: string, change: (value: Value) => unknown): Promise<void> {
    for (const row of await run.query(`SELECT "${key}", "${column}" FROM "${table}"`)) {
      await run.query(`UPDATE "${table}" SET "${column}" = ? WHERE "${key}" = ?`, [JSON.stringify(change(JSON.parse(row[column]))), row[key]]);
    }
  }
}
