import '@marvet/core/domain/plainErrors';
import { idSchema, versionSchema } from '@marvet/core/domain/identity';
import { fieldWords } from '@marvet/core/domain/plainErrors';
import type { Context } from 'hono';
import type { ContentfulStatusCode } from 'hono/utils/http-status';
import { z } from 'zod';

/** An error that the page can show: which fields, why, and what to do. */
export class ApiError extends Error {
  constructor(
    readonly status: ContentfulStatusCode,
    readonly code: string,
    message: string,
    readonly fields?: Record<string, string>,
    /** The record as it is, where a change started from an older state of it. */
    readonly current?: unknown,
  ) {
    super(message);
    this.name = 'ApiError';
  }

  body() {
    const { code, message, fields, current } = this;
    return { error: { code, message, ...(fields ? { fields } : {}), ...(current === undefined ? {} : { current }) } };
  }
}

export const notFound = (what: string) => new ApiError(404, 'not-found', `There is no such ${what}. It may have been deleted; look in the bin.`);

/** Two changed the same thing: the second is told, and sees the record as it is. */
export const changedMeanwhile = (what: string, current: unknown) =>
  new ApiError(409, 'changed', `This ${what} was changed on another page in the meantime. Nothing was overwritten.`, undefined, current);

/** Parses by a schema. @throws ApiError 422 that names each field and why */
export function parsed<Schema extends z.ZodType>(schema: Schema, value: unknown): z.output<Schema> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const fields: Record<string, string> = {};
  for (const issue of result.error.issues) fields[issue.path.join('.') || 'body'] ??= issue.message;
  const said = Object.entries(fields).map(([field, why]) => [fieldWords(field), why].filter(Boolean).join(': '));
  throw new ApiError(422, 'invalid', `Not saved. ${said.join('; ')}`, fields);
}

async function readJson(context: Context): Promise<unknown> {
  if (!/^application\/json\b/i.test(context.req.header('content-type') ?? '')) {
    throw new ApiError(415, 'not-json', 'Send JSON with the content type application/json');
  }
  const text = await context.req.text();
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new ApiError(400, 'not-json', `The body is not JSON: ${(error as Error).message}`);
  }
}

/** The JSON body of a request by a schema. */
export async function readBody<Schema extends z.ZodType>(context: Context, schema: Schema): Promise<z.output<Schema>> {
  return parsed(schema, await readJson(context));
}

/** A change of a whole record: what it is to be, and the version that the change started from. */
export async function readChange<Schema extends z.ZodType>(context: Context, schema: Schema): Promise<{ draft: z.output<Schema>; version: number }> {
  const value = await readJson(context);
  const { version } = parsed(z.object({ version: versionSchema }), value);
  return { draft: parsed(schema, value), version };
}

/** An identity from the path. */
export function pathId(context: Context, name: string): string {
  const result = idSchema.safeParse(context.req.param(name));
  if (!result.success) throw notFound('record');
  return result.data;
}

/** A text file to be saved under a name. */
export function download(context: Context, name: string, type: string, body: string): Response {
  return context.body(body, 200, { 'Content-Type': `${type}; charset=utf-8`, ...savedAs(name) });
}

/** The header that has an answer saved as a file. */
export function savedAs(name: string): { 'Content-Disposition': string } {
  const safe = name.replace(/[^A-Za-z0-9 ._-]+/g, '').trim() || 'marvet';
  return { 'Content-Disposition': `attachment; filename="${safe}"` };
}
