import type { EntitySchemaColumnOptions } from 'typeorm';
import type { z } from 'zod';

/** A value in the database that is not what its record says; nothing is guessed from it. */
export class StoredDataError extends Error {}

interface Kind {
  type: 'text' | 'integer' | 'real' | 'boolean' | 'json';
  nullable: boolean;
}

/** What kind of column a field of a record needs. Lists and objects are kept as JSON. */
function kindOf(schema: z.core.$ZodType): Kind {
  const { def } = (schema as z.core.$ZodTypes)._zod;
  switch (def.type) {
    case 'nullable':
      return { ...kindOf(def.innerType), nullable: true };
    case 'optional':
    case 'default':
    case 'prefault':
    case 'catch':
      return kindOf(def.innerType);
    case 'pipe':
      return def.in._zod.def.type === 'transform' ? kindOf(def.out) : kindOf(def.in);
    case 'string':
    case 'enum':
    case 'literal':
      return { type: 'text', nullable: false };
    case 'number':
      return { type: /int/.test((schema as z.ZodNumber).format ?? '') ? 'integer' : 'real', nullable: false };
    case 'boolean':
      return { type: 'boolean', nullable: false };
    default:
      return { type: 'json', nullable: false };
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
      const { type, nullable } = kindOf(schema);
      const base = { nullable, primary: keys.includes(name) };
      if (type !== 'json') return [name, { ...base, type }];
      const from = (text: string | null) => (text === null ? null : parsedColumn(table, name, schema, text));
      // A missing value of a change stays missing: only what is set is written.
      const to = (value: unknown) => (value === undefined || value === null ? value : JSON.stringify(value));
      return [name, { ...base, type: 'text', transformer: { from, to } }];
    }),
  );
}

/** Names of the columns that hold JSON. */
export function jsonColumns(shape: Record<string, z.ZodType>): Set<string> {
  return new Set(Object.entries(shape).flatMap(([name, schema]) => (kindOf(schema).type === 'json' ? [name] : [])));
}

/** Names of the columns that hold yes or no, which the database keeps as 1 or 0. */
export function flagColumns(shape: Record<string, z.ZodType>): Set<string> {
  return new Set(Object.entries(shape).flatMap(([name, schema]) => (kindOf(schema).type === 'boolean' ? [name] : [])));
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
