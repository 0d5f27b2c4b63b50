import type { LogLine } from '@marvet/core/domain/logLine';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** A line of the field log that waits in this browser, with the trial it belongs to. */
export interface WaitingLine {
  id: string;
  trialId: string;
  order: number;
  line: LogLine;
}

interface Schema extends DBSchema {
  lines: { key: string; value: WaitingLine; indexes: { trialId: string } };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('marvet-field-log', 1, {
    upgrade(db) {
      db.createObjectStore('lines', { keyPath: 'id' }).createIndex('trialId', 'trialId');
    },
  });
  return opened;
}

/** Writes a line. It is on the disk when this settles: strict durability waits for the flush. */
export async function writeLine(waiting: WaitingLine): Promise<void> {
  const transaction = (await database()).transaction('lines', 'readwrite', { durability: 'strict' });
  await transaction.store.put(waiting);
  await transaction.done;
}

/** Lines of a trial that the server has not acknowledged, in the order in which they were written. */
export async function waitingLines(trialId: string): Promise<WaitingLine[]> {
  const lines = await (await database()).getAllFromIndex('lines', 'trialId', trialId);
  return lines.sort((a, b) => a.order - b.order);
}

/** Forgets lines that the server has acknowledged. */
export async function forgetLines(ids: readonly string[]): Promise<void> {
  const transaction = (await database()).transaction('lines', 'readwrite');
  await Promise.all(ids.map((id) => transaction.store.delete(id)));
  await transaction.done;
}
