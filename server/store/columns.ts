import { type FieldKind, fieldKind } from '@marvet/core/domain/fieldKind';
import type { EntitySchemaColumnOptions } from 'typeorm';
import type { z } from 'zod';

/** A value in the database that is not what its record says; nothing is guessed from it. */
export class StoredDataError extends Error {}

type ColumnType = 'text' | 'integer' | 'real' | 'boolean' | 'json';

/** What kind of column a field of a record needs. Lists and objects are kept as JSON. */
function columnType({ type, whole }: FieldKind): ColumnType {
  switch (type) {
    case 'text':
      return 'text';
    case 'number':
      return whole ? 'integer' : 'real';
    case 'yes or no':
      return 'boolean';
    default:
      return 'json';
  }
}

/**
 * Columns of a table from the schema of its record, so that a field is described once. JSON is parsed by
 * the record's own schema when it is read.
 * @param keys fields that name a row
 */
export function columnsOf(table: string, shape: Record<string, z.ZodType>, keys: readonly string[]): Record<string, EntitySchemaColumnOptions> {
  return Object.fromEntries(
    Object.entries(shape).map(([name, schema]) => {
      const kind = fieldKind(schema);
      const type = columnType(kind);
      const base = { nullable: kind.nullable ?? false, primary: keys.includes(name) };
      if (type !== 'json') return [name, { ...base, type }];
      const from = (text: string | null) => (text === null ? null : parsedColumn(table, name, schema, text));
      // A missing value of a change stays missing: only what is set is written.
      const to = (value: unknown) => (value === undefined || value === null ? value : JSON.stringify(value));
      return [name, { ...base, type: 'text', transformer: { from, to } }];
    }),
  );
}

/** Names of the columns of a type; JSON is kept as text, yes and no as 1 and 0. */
export function columnsThatAre(type: ColumnType, shape: Record<string, z.ZodType>): Set<string> {
  return new Set(Object.entries(shape).flatMap(([name, schema]) => (columnType(fieldKind(schema)) === type ? [name] : [])));
}

function parsedColumn(table: string, column: string, schema: z.ZodType, text: string): unknown {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new StoredDataError(`${table}.${column} holds no JSON: ${(error as Error).message}`);
  }
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const [issue] = result.error.issues;
  throw new StoredDataError(`${table}.${column} holds what its record does not: ${issue?.path.join('.')} ${issue?.message}`);
}
