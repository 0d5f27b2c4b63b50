import type { z } from 'zod';
import { columnsThatAre } from './columns.ts';
import { RECORDS, type RecordName } from './records.ts';
import type { ReadTables } from './store.ts';

/**
 * Rows of a table as the text of a JSON list, which the database writes itself: columns that hold JSON are
 * passed on as they lie there. Thousands of rows made into objects, parsed and written again would take
 * most of the time of an answer.
 * @param condition the rest of the statement behind WHERE
 * @param extras columns beside its own: their names, and what they are in SQL
 */
export async function listedJson(store: Pick<ReadTables, 'query'>, name: RecordName, condition: string, values: unknown[], extras: Record<string, string> = {}): Promise<string> {
  const { table, schema } = RECORDS[name];
  const row = rowSql(schema.shape as Record<string, z.ZodType>, extras);
  const [answer] = await store.query<{ list: string | null }>(`SELECT group_concat("row", ',') AS "list" FROM (SELECT ${row} AS "row" FROM "${table}" WHERE ${condition})`, values);
  return `[${answer?.list ?? ''}]`;
}

/** One row as JSON text, in SQL. */
function rowSql(shape: Record<string, z.ZodType>, extras: Record<string, string>): string {
  const json = columnsThatAre('json', shape);
  const flags = columnsThatAre('boolean', shape);
  const own = Object.keys(shape).map((column): [string, string] => {
    if (json.has(column)) return [column, `ifnull("${column}", 'null')`];
    if (flags.has(column)) return [column, `CASE "${column}" WHEN 1 THEN 'true' WHEN 0 THEN 'false' ELSE 'null' END`];
    return [column, `json_quote("${column}")`];
  });
  const fields = [...own, ...Object.entries(extras).map(([column, sql]): [string, string] => [column, `json_quote(${sql})`])];
  return `'{' || ${fields.map(([column, sql], at) => `'${at > 0 ? ',' : ''}"${column}":' || ${sql}`).join(' || ')} || '}'`;
}
