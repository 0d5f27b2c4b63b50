import { In, IsNull, type ObjectLiteral, type Repository } from 'typeorm';

export { In, IsNull, Not } from 'typeorm';

/** What may be asked of a table at any time. */
export type ReadTable<Row extends ObjectLiteral> = Pick<Repository<Row>, 'find' | 'findBy' | 'findOne' | 'findOneBy' | 'findOneByOrFail' | 'count' | 'countBy' | 'existsBy'>;

/** What may be done to a table inside a write. */
export type Table<Row extends ObjectLiteral> = ReadTable<Row> & Pick<Repository<Row>, 'insert' | 'update' | 'upsert' | 'save' | 'delete'>;

/** Conditions for rows of a trial that are not in the bin. */
export const present = (trialId: string) => ({ trialId, binnedAtMs: IsNull() });

/** Rows by their identities. */
export const byId = <Row extends { id: string }>(rows: readonly Row[]): Map<string, Row> => new Map(rows.map((row) => [row.id, row]));

/** So many values fit into one statement of the database with room to spare. */
const MOST_AT_ONCE = 500;

/** Runs a query with a list of values that may be longer than one statement takes. */
export async function inParts<Value, Result>(values: readonly Value[], ask: (part: ReturnType<typeof In>) => Promise<Result[]>): Promise<Result[]> {
  const results: Result[] = [];
  for (let start = 0; start < values.length; start += MOST_AT_ONCE) results.push(...(await ask(In(values.slice(start, start + MOST_AT_ONCE)))));
  return results;
}
