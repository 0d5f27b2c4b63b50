import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { DataSource } from 'typeorm';

const KEPT = 3;

/** Copies the database as it is into the folder's `backups`, and keeps the last three copies. */
export async function copyBefore(database: DataSource, dataFolder: string): Promise<string> {
  const folder = join(dataFolder, 'backups');
  await mkdir(folder, { recursive: true });
  const [latest] = (await database.query('SELECT "name" FROM "migrations" ORDER BY "id" DESC LIMIT 1')) as { name: string }[];
  const at = new Date().toISOString().replace(/[:.]/g, '-');
  const path = join(folder, `marvet ${at} ${latest?.name ?? 'empty'}.sqlite`);
  await database.query('VACUUM INTO ?', [path]);
  const copies = (await readdir(folder)).filter((name) => name.startsWith('marvet ') && name.endsWith('.sqlite')).sort();
  for (const name of copies.slice(0, -KEPT)) await rm(join(folder, name));
  return path;
}
