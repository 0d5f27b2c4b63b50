import type { MiddlewareHandler } from 'hono';
import type { secureHeaders } from 'hono/secure-headers';
import { guestOf } from './guestOf.ts';
import { ApiError } from './http.ts';

const LOCAL = new Set(['127.0.0.1', 'localhost', '[::1]']);
const hostName = (host: string) => host.replace(/:\d+$/, '');

/**
 * Answers only to this machine's own name, and changes things only for pages that came from here.
 * Without it any site open in the same browser could reach the server, by name rebinding or by a form.
 */
export const guardOrigin: MiddlewareHandler = async (context, next) => {
  // A device that was let in asked at the door, which has checks of its own.
  if (guestOf(context)) return next();
  const host = context.req.header('host') ?? '';
  if (!LOCAL.has(hostName(host))) throw new ApiError(403, 'wrong-host', 'Marvet answers to 127.0.0.1 and localhost only');
  const origin = context.req.header('origin');
  if (origin !== undefined && origin !== `http://${host}`) throw new ApiError(403, 'wrong-origin', 'Requests from other sites are refused');
  if (context.req.header('sec-fetch-site') === 'cross-site' && context.req.method !== 'GET') {
    throw new ApiError(403, 'wrong-origin', 'Requests from other sites are refused');
  }
  await next();
};

const SELF = ["'self'"];

/** Headers that keep foreign content out of the page. Everything is of this machine, without a certificate: no transport header. */
export const HEADERS: Parameters<typeof secureHeaders>[0] = {
  contentSecurityPolicy: {
    defaultSrc: SELF,
    scriptSrc: SELF,
    styleSrc: SELF,
    imgSrc: [...SELF, 'data:', 'blob:'],
    mediaSrc: [...SELF, 'blob:'],
    fontSrc: SELF,
    connectSrc: SELF,
    workerSrc: SELF,
    objectSrc: ["'none'"],
    baseUri: ["'none'"],
    formAction: ["'none'"],
    frameAncestors: ["'none'"],
  },
  referrerPolicy: 'no-referrer',
  crossOriginResourcePolicy: 'same-origin',
  strictTransportSecurity: false,
};
