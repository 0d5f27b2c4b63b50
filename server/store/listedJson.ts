import type { z } from 'zod';
import { flagColumns, jsonColumns } from './columns.ts';
import { RECORDS, type RecordName } from './records.ts';
import type { ReadTables } from './store.ts';

/**
 * Rows of a table as the text of a JSON list. Columns that hold JSON are passed on as they lie there:
 * parsing thousands of them only to write them again would take most of the time.
 * @param condition the rest of the statement behind WHERE
 */
export async function listedJson(store: Pick<ReadTables, 'query'>, name: RecordName, condition: string, values: unknown[]): Promise<string> {
  const { table, schema } = RECORDS[name];
  const shape = schema.shape as Record<string, z.ZodType>;
  const rows = await store.query<Record<string, unknown>>(
    `SELECT ${Object.keys(shape)
      .map((column) => `"${column}"`)
      .join(', ')} FROM "${table}" WHERE ${condition}`,
    values,
  );
  return `[${rows.map(rowWriter(shape)).join(',')}]`;
}

/** Writes one row as JSON text. */
export function rowWriter(shape: Record<string, z.ZodType>): (row: Record<string, unknown>) => string {
  const json = jsonColumns(shape);
  const flags = flagColumns(shape);
  const columns = Object.keys(shape).map((column) => [column, `${JSON.stringify(column)}:`] as const);
  return (row) => {
    const fields = columns.map(([column, head]) => {
      const value = row[column];
      if (value === null || value === undefined) return `${head}null`;
      if (json.has(column)) return head + (value as string);
      return head + (flags.has(column) ? String(value === 1) : JSON.stringify(value));
    });
    return `{${fields.join(',')}}`;
  };
}
