import { idSchema } from '@marvet/core/domain/identity';
import type { Context } from 'hono';
import type { ContentfulStatusCode } from 'hono/utils/http-status';
import type { z } from 'zod';

/** An error that the page can show: which fields, why, and what to do. */
export class ApiError extends Error {
  constructor(
    readonly status: ContentfulStatusCode,
    readonly code: string,
    message: string,
    readonly fields?: Record<string, string>,
  ) {
    super(message);
    this.name = 'ApiError';
  }

  body() {
    return { error: { code: this.code, message: this.message, ...(this.fields ? { fields: this.fields } : {}) } };
  }
}

export const notFound = (what: string) => new ApiError(404, 'not-found', `There is no such ${what}. It may have been deleted; look in the bin.`);

/** Parses by a schema. @throws ApiError 422 that names each field and why */
export function parsed<Schema extends z.ZodType>(schema: Schema, value: unknown): z.output<Schema> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const fields: Record<string, string> = {};
  for (const issue of result.error.issues) fields[issue.path.join('.') || 'body'] ??= issue.message;
  const said = Object.entries(fields)
    .map(([field, why]) => `${field}: ${why}`)
    .join('; ');
  throw new ApiError(422, 'invalid', `Not saved. ${said}`, fields);
}

/** The JSON body of a request by a schema. */
export async function readBody<Schema extends z.ZodType>(context: Context, schema: Schema): Promise<z.output<Schema>> {
  if (!/^application\/json\b/i.test(context.req.header('content-type') ?? '')) {
    throw new ApiError(415, 'not-json', 'Send JSON with the content type application/json');
  }
  const text = await context.req.text();
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new ApiError(400, 'not-json', `The body is not JSON: ${(error as Error).message}`);
  }
  return parsed(schema, value);
}

/** An identity from the path. */
export function pathId(context: Context, name: string): string {
  const result = idSchema.safeParse(context.req.param(name));
  if (!result.success) throw notFound('record');
  return result.data;
}

/** A text file to be saved under a name. */
export function download(context: Context, name: string, type: string, body: string): Response {
  const safe = name.replace(/[^A-Za-z0-9 ._-]+/g, '').trim() || 'marvet';
  return context.body(body, 200, { 'Content-Type': `${type}; charset=utf-8`, 'Content-Disposition': `attachment; filename="${safe}"` });
}
