import type { LogLine } from '@marvet/core/domain/logLine';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** A line of the field log that waits in this browser, with the trial it belongs to. */
export interface WaitingLine {
  id: string;
  trialId: string;
  order: number;
  line: LogLine;
  /** Why the server would not take it; null while it has not refused it. */
  refused: string | null;
  /** What was added to this device's clock when the line was written, as far as the server had said by how much it is behind. */
  addedMs: number;
}

/** Where lines wait. */
export interface LineStore {
  /** Writes a line, or what became of it. It is on the disk when this settles. */
  write(waiting: WaitingLine): Promise<void>;
  /** Lines of a trial that the server has not acknowledged, in the order in which they were written. */
  waiting(trialId: string): Promise<WaitingLine[]>;
  forget(ids: readonly string[]): Promise<void>;
}

interface Schema extends DBSchema {
  lines: { key: string; value: WaitingLine; indexes: { trialId: string } };
}

/** Lines in this browser's own database; strict durability waits for the flush. */
export function browserLines(): LineStore {
  let opened: Promise<IDBPDatabase<Schema>> | null = null;
  const database = () => {
    opened ??= openDB<Schema>('marvet-field-log', 1, {
      upgrade(db) {
        db.createObjectStore('lines', { keyPath: 'id' }).createIndex('trialId', 'trialId');
      },
    });
    return opened;
  };
  return {
    async write(waiting) {
      const transaction = (await database()).transaction('lines', 'readwrite', { durability: 'strict' });
      await transaction.store.put(waiting);
      await transaction.done;
    },
    async waiting(trialId) {
      const lines = await (await database()).getAllFromIndex('lines', 'trialId', trialId);
      // Lines of before refusals and clocks were kept have none.
      return lines.map((each) => ({ ...each, refused: each.refused ?? null, addedMs: each.addedMs ?? 0 })).sort((a, b) => a.order - b.order);
    },
    async forget(ids) {
      const transaction = (await database()).transaction('lines', 'readwrite');
      await Promise.all(ids.map((id) => transaction.store.delete(id)));
      await transaction.done;
    },
  };
}
