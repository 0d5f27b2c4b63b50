import { createRequire } from 'node:module';

/** As much of the driver as a test of older schemas needs; it ships no types of its own. */
export interface OldDatabase {
  exec(sql: string): void;
  prepare(sql: string): { all(): unknown[]; get(): unknown };
  close(): void;
}

/** Opens a database file without the store, so that nothing brings it up to date. */
export function openOldDatabase(path: string): OldDatabase {
  const Driver = createRequire(import.meta.url)('better-sqlite3') as new (path: string) => OldDatabase;
  return new Driver(path);
}
