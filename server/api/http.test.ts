import { Hono } from 'hono';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { ApiError, download, notFound, parsed, pathId, readBody } from './http.ts';

const schema = z.object({ name: z.string().min(1, 'Give it a name'), levels: z.array(z.number().max(9, 'At most 9')) });
const refusal = (work: () => unknown): ApiError => {
  try {
    work();
  } catch (error) {
    return error as ApiError;
  }
  throw new Error('It was not refused');
};

/** A server of two addresses, which tells refusals as the real one does. */
const app = new Hono()
  .post('/read', async (context) => context.json(await readBody(context, schema)))
  .get('/take/:id', (context) => context.json({ id: pathId(context, 'id') }))
  .get('/save', (context) => download(context, context.req.query('name') ?? '', 'text/csv', 'a,b\r\n'));
app.onError((error, context) => (error instanceof ApiError ? context.json(error.body(), error.status) : context.text(String(error), 500)));
const post = (body: string, type = 'application/json') => app.request('/read', { method: 'POST', body, headers: { 'content-type': type } });

describe('a body', () => {
  it('is what the schema makes of it', async () => {
    expect(await (await post('{"name":"Osier","levels":[1]}')).json()).toEqual({ name: 'Osier', levels: [1] });
  });

  it('that does not fit names each field once, with why', () => {
    const told = refusal(() => parsed(schema, { name: '', levels: [1, 12, 13] }));
    expect(told).toMatchObject({ status: 422, code: 'invalid', fields: { name: 'Give it a name', 'levels.1': 'At most 9', 'levels.2': 'At most 9' } });
    expect(told.message).toBe('Not saved. Name: Give it a name; Levels: At most 9; Levels: At most 9');
    expect(refusal(() => parsed(schema, null)).fields).toHaveProperty('body');
  });

  it.each([
    ['{"name":', 'application/json', 400, 'not-json'],
    ['{}', 'text/plain', 415, 'not-json'],
    ['{}', 'application/jsonp', 415, 'not-json'],
    ['{}', 'application/json; charset=utf-8', 422, 'invalid'],
  ])('%s as %s is refused', async (body, type, status, code) => {
    const response = await post(body, type);
    expect([response.status, ((await response.json()) as { error: { code: string } }).error.code]).toEqual([status, code]);
  });
});

describe('an identity in the path', () => {
  it('that is none is a record that is not there', async () => {
    expect((await app.request('/take/..%2Fdata')).status).toBe(404);
    expect((await app.request('/take/5385e6c8-2a34-4de5-8676-5ed87c21bb7e')).status).toBe(200);
    expect(notFound('take').message).toContain('look in the bin');
  });
});

describe('a file to be saved', () => {
  it.each([
    ['Ferry run sheet.csv', 'Ferry run sheet.csv'],
    ['../"etc"/passwd\r\nX: y', '..etcpasswdX y'],
    ['Übung', 'bung'],
    ['', 'marvet'],
  ])('named %j cannot write into the header', async (name, safe) => {
    const response = await app.request(`/save?name=${encodeURIComponent(name)}`);
    expect(response.headers.get('content-disposition')).toBe(`attachment; filename="${safe}"`);
    expect(response.headers.get('content-type')).toBe('text/csv; charset=utf-8');
  });
});
