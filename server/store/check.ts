import type { OpenedStore } from './store.ts';

/**
 * Looks the data folder over at a start: whether the database is whole, and whether the bytes of every
 * file, photograph and voice note are there.
 * @param has whether the bytes of a hash are on the disk
 * @returns what is wrong, a sentence each; nothing when all is well
 */
export async function checkData(store: OpenedStore, has: (sha256: string) => boolean): Promise<string[]> {
  const troubles: string[] = [];
  const answers = (await store.writer.query('PRAGMA quick_check(3)')) as { quick_check: string }[];
  const broken = answers.map((answer) => answer.quick_check).filter((answer) => answer !== 'ok');
  if (broken.length > 0) troubles.push(`The database is damaged (${broken[0]}). Stop Marvet and put the last copy from the folder backups in its place.`);
  const wanted = await store.query<{ name: string; sha256: string }>(
    `SELECT "name", "sha256" FROM "audio_file" UNION ALL SELECT "name", "originalSha256" FROM "audio_file" WHERE "originalSha256" IS NOT NULL UNION ALL SELECT 'photograph ' || "caption", "sha256" FROM "photo" UNION ALL SELECT 'a voice note', "sha256" FROM "voice_note"`,
  );
  const missing = wanted.filter(({ sha256 }) => !has(sha256));
  const [first] = missing;
  if (first) {
    const more = missing.length > 1 ? ` and of ${missing.length - 1} more` : '';
    troubles.push(`The bytes of ${first.name}${more} are missing from the folder blobs. Bring the files in again; their takes and names are kept.`);
  }
  return troubles;
}
