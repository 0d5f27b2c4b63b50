import type { ReadTables } from './store.ts';

/** Tables whose changes are noted, row by row. */
export type NotedTable = 'take' | 'recording';

/** More changes than this are read in one go with all the rest. */
const MOST_AT_ONCE = 500;

/**
 * What was made of the rows of one trial, kept in memory: asked again, only rows that changed since are
 * read again. The database itself notes what changed, whoever wrote it.
 */
export class KeptRows<Made> {
  private rows = new Map<string, Made>();
  private readUpTo: number | null = null;

  /**
   * @param read reads the rows with these identities, or all of the trial; rows that are no longer to be
   * counted are left out
   */
  constructor(
    private readonly store: Pick<ReadTables, 'query'>,
    private readonly trialId: string,
    private readonly table: NotedTable,
    private readonly read: (ids: readonly string[] | null) => Promise<[id: string, made: Made][]>,
  ) {}

  /** All rows as they are now. */
  async all(): Promise<Made[]> {
    const { upTo, ids } = await this.changes();
    // Rows are read after the note of them: what changes in between is noted anew and read again next time.
    if (ids === null) this.rows = new Map(await this.read(null));
    else if (ids.length > 0) {
      const changed = await this.read(ids);
      for (const id of ids) this.rows.delete(id);
      for (const [id, made] of changed) this.rows.set(id, made);
    }
    this.readUpTo = upTo;
    return [...this.rows.values()];
  }

  /** Which rows changed since they were read; null for more than are worth naming. */
  private async changes(): Promise<{ upTo: number; ids: string[] | null }> {
    if (this.readUpTo === null) {
      const [last] = await this.store.query<{ no: number | null }>('SELECT MAX("no") AS "no" FROM "row_change" WHERE "trialId" = ?', [this.trialId]);
      return { upTo: last?.no ?? 0, ids: null };
    }
    const noted = await this.store.query<{ no: number; what: string; id: string }>('SELECT "no", "what", "id" FROM "row_change" WHERE "trialId" = ? AND "no" > ? ORDER BY "no"', [
      this.trialId,
      this.readUpTo,
    ]);
    const ids = noted.filter(({ what }) => what === this.table).map(({ id }) => id);
    return { upTo: noted.at(-1)?.no ?? this.readUpTo, ids: ids.length > MOST_AT_ONCE ? null : ids };
  }
}
