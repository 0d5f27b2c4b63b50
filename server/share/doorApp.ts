import { serveStatic } from '@hono/node-server/serve-static';
import type { Entered } from '@marvet/core/contract/door';
import { nameSchema } from '@marvet/core/domain/identity';
import { type Context, Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { getCookie, setCookie } from 'hono/cookie';
import { secureHeaders } from 'hono/secure-headers';
import { z } from 'zod';
import { HEADERS } from '../api/guard.ts';
import type { DoorBindings } from '../api/guestOf.ts';
import { ApiError, readBody } from '../api/http.ts';
import type { Store } from '../store/store.ts';
import type { Codes } from './codes.ts';
import { guestByKey, letIn, type Refusal } from './guests.ts';
import { homeOf, mayAsk, mayOpen } from './rules.ts';

/** The prefix has the browser hold it to this very address, over an encrypted connection. */
const COOKIE = '__Host-marvet';
const PROGRAM = /^\/(assets\/[\w.-]+|serviceWorker\.js|manifest\.webmanifest|icon(-\d+)?\.(svg|png))$/;
const enterSchema = z.object({
  code: z
    .string({ error: 'Type the code that the laptop shows' })
    .transform((text) => text.replace(/\s/g, ''))
    .pipe(z.string().regex(/^\d{6}$/, 'The code is six digits')),
  name: nameSchema,
});

const REFUSALS: Record<Refusal, string> = {
  unknown: 'This device was not let in. Ask for a code at the laptop.',
  'put out': 'This device was put out at the laptop. Ask for a new code. Lines that wait here are not lost.',
  over: 'The day of this device is over. Ask for a new code at the laptop. Lines that wait here are not lost.',
  'other certificate': 'The laptop shows a new certificate. Compare its fingerprint with the laptop, then ask for a new code. Lines that wait here are not lost.',
  'other browser': 'This key belongs to another browser. Ask for a code at the laptop.',
};
const WRONG = {
  code: 'That is not the code. Look at the laptop again.',
  void: 'There is no valid code any more. Ask for a new one at the laptop.',
  busy: 'Too many tries at once. Wait a moment.',
};

/** What the door needs of the rest. */
export interface DoorParts {
  store: Store;
  codes: Codes;
  /** The program behind the door; it gets the device with the request, in a place that no request can reach. */
  inner: { fetch(request: Request, bindings: DoorBindings): Response | Promise<Response> };
  pageFolder: string | null;
  /** Host and port at which the door stands. */
  host: () => string;
  certificate: { fingerprint: string; untilMs: number; authority: string };
}

/**
 * What stands at the other address: the page at which a code is typed, the program's own files, and behind
 * them only what the role of a device that was let in may ask.
 */
export function doorApp({ store, codes, inner, pageFolder, host, certificate }: DoorParts): Hono {
  const app = new Hono();
  const browserOf = (context: Context) => context.req.header('user-agent') ?? '';
  const known = async (context: Context) => {
    const key = getCookie(context, COOKIE);
    if (!key) return { refusal: 'unknown' as const };
    return guestByKey(store, key, { browser: browserOf(context), certificate: certificate.fingerprint });
  };
  app.use('*', secureHeaders(HEADERS), async (context, next) => {
    if (context.req.header('host') !== host()) throw new ApiError(403, 'wrong-host', `The door answers to ${host()} only`);
    const origin = context.req.header('origin');
    const foreign = origin !== undefined && origin !== `https://${host()}`;
    const crossing = context.req.method !== 'GET' && !['same-origin', undefined].includes(context.req.header('sec-fetch-site'));
    if (foreign || crossing) throw new ApiError(403, 'wrong-origin', 'Requests from other sites are refused');
    await next();
  });
  app.onError((error, context) => {
    if (error instanceof ApiError) return context.json(error.body(), error.status);
    console.error(error);
    return context.json(new ApiError(500, 'internal', 'Something went wrong on the laptop; nothing was lost.').body(), 500);
  });

  app.post('/api/door/enter', bodyLimit({ maxSize: 4096 }), async (context) => {
    const { code, name } = await readBody(context, enterSchema);
    const tried = await codes.tried(code);
    if ('wrong' in tried) throw new ApiError(tried.wrong === 'busy' ? 429 : 403, `wrong-${tried.wrong}`, WRONG[tried.wrong], { code: WRONG[tried.wrong] });
    const { guest, key } = await letIn(store, tried.grant, { name, browser: browserOf(context), certificate: certificate.fingerprint, untilMs: certificate.untilMs });
    setCookie(context, COOKIE, key, { path: '/', secure: true, httpOnly: true, sameSite: 'Strict', expires: new Date(certificate.untilMs) });
    return context.json({ goTo: homeOf(guest) } satisfies Entered, 201);
  });
  app.get('/trust.crt', (context) =>
    context.body(certificate.authority, 200, { 'Content-Type': 'application/x-x509-ca-cert', 'Content-Disposition': 'attachment; filename="marvet-laptop.crt"' }),
  );
  if (pageFolder) {
    const files = serveStatic({ root: pageFolder });
    app.get('*', async (context, next) => (PROGRAM.test(context.req.path) ? ((await files(context, next)) ?? context.notFound()) : next()));
    app.get('/enter', serveStatic({ root: pageFolder, path: 'enter.html' }));
  }

  app.all('/api/*', async (context) => {
    const found = await known(context);
    if ('refusal' in found) throw new ApiError(401, `not-in-${found.refusal.replace(' ', '-')}`, REFUSALS[found.refusal]);
    if (!mayAsk(found.guest, context.req.method, context.req.path)) {
      throw new ApiError(403, 'outside-role', 'This device may only log in the field, or listen. That is done at the laptop.');
    }
    return inner.fetch(context.req.raw, { guest: found.guest });
  });
  app.get('*', async (context) => {
    const found = await known(context);
    if ('refusal' in found) return context.redirect('/enter');
    if (!mayOpen(found.guest, context.req.path)) return context.redirect(homeOf(found.guest));
    return inner.fetch(context.req.raw, { guest: found.guest });
  });
  app.all('*', () => {
    throw new ApiError(404, 'not-found', 'There is no such address');
  });
  return app;
}
