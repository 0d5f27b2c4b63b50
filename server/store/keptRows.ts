import { setImmediate as nextTurn } from 'node:timers/promises';
import type { ReadTables } from './store.ts';

/** Tables whose changes are noted, row by row. */
export type NotedTable = 'take' | 'recording';

/** Rows that are read in one go; between two of them the server answers others. */
const AT_ONCE = 250;

/**
 * What was made of the rows of one trial, kept in memory: asked again, only rows that changed since are
 * read again. The database itself notes what changed, whoever wrote it.
 */
export class KeptRows<Made> {
  private rows = new Map<string, Made>();
  private readUpTo: number | null = null;
  private last: Promise<unknown> = Promise.resolve();

  /**
   * @param read reads the rows with these identities; rows that are no longer to be counted are left out
   */
  constructor(
    private readonly store: Pick<ReadTables, 'query'>,
    private readonly trialId: string,
    private readonly table: NotedTable,
    private readonly read: (ids: readonly string[]) => Promise<[id: string, made: Made][]>,
  ) {}

  /** All rows as they are now. Who asks while they are being read waits for that, and then for what changed meanwhile. */
  all(): Promise<Made[]> {
    const here = this.last.then(() => this.readAgain());
    // A reading that failed is told to who asked for it; the next one starts anew.
    this.last = here.catch(() => undefined);
    return here;
  }

  private async readAgain(): Promise<Made[]> {
    const { upTo, ids } = await this.changes();
    for (let start = 0; start < ids.length; start += AT_ONCE) {
      if (start > 0) await nextTurn();
      const some = ids.slice(start, start + AT_ONCE);
      const changed = await this.read(some);
      for (const id of some) this.rows.delete(id);
      for (const [id, made] of changed) this.rows.set(id, made);
    }
    // Rows are read after the note of them: what changes in between is noted anew and read again next time.
    this.readUpTo = upTo;
    return [...this.rows.values()];
  }

  /** Which rows changed since they were read: all of them at first. */
  private async changes(): Promise<{ upTo: number; ids: string[] }> {
    if (this.readUpTo === null) {
      const [last] = await this.store.query<{ no: number | null }>('SELECT MAX("no") AS "no" FROM "row_change" WHERE "trialId" = ?', [this.trialId]);
      const all = await this.store.query<{ id: string }>(`SELECT "id" FROM "${this.table}" WHERE "trialId" = ?`, [this.trialId]);
      return { upTo: last?.no ?? 0, ids: all.map(({ id }) => id) };
    }
    const noted = await this.store.query<{ no: number; what: string; id: string }>('SELECT "no", "what", "id" FROM "row_change" WHERE "trialId" = ? AND "no" > ? ORDER BY "no"', [
      this.trialId,
      this.readUpTo,
    ]);
    const ids = noted.filter(({ what }) => what === this.table).map(({ id }) => id);
    return { upTo: noted.at(-1)?.no ?? this.readUpTo, ids: [...new Set(ids)] };
  }
}
