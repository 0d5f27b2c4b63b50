import type { MiddlewareHandler } from 'hono';
import { ApiError } from './http.ts';

const LOCAL = new Set(['127.0.0.1', 'localhost', '[::1]']);
const hostName = (host: string) => host.replace(/:\d+$/, '');

/**
 * Answers only to this machine's own name, and changes things only for pages that came from here.
 * Without it any site open in the same browser could reach the server, by name rebinding or by a form.
 */
export const guardOrigin: MiddlewareHandler = async (context, next) => {
  const host = context.req.header('host') ?? '';
  if (!LOCAL.has(hostName(host))) throw new ApiError(403, 'wrong-host', 'Marvet answers to 127.0.0.1 and localhost only');
  const origin = context.req.header('origin');
  if (origin !== undefined && origin !== `http://${host}`) throw new ApiError(403, 'wrong-origin', 'Requests from other sites are refused');
  if (context.req.header('sec-fetch-site') === 'cross-site' && context.req.method !== 'GET') {
    throw new ApiError(403, 'wrong-origin', 'Requests from other sites are refused');
  }
  await next();
};

const POLICY = [
  "default-src 'self'",
  "script-src 'self'",
  "style-src 'self'",
  "img-src 'self' data: blob:",
  "media-src 'self' blob:",
  "font-src 'self'",
  "connect-src 'self'",
  "worker-src 'self'",
  "object-src 'none'",
  "base-uri 'none'",
  "form-action 'none'",
  "frame-ancestors 'none'",
].join('; ');

/** Headers that keep foreign content out of the page. */
export const guardHeaders: MiddlewareHandler = async (context, next) => {
  await next();
  context.header('Content-Security-Policy', POLICY);
  context.header('X-Content-Type-Options', 'nosniff');
  context.header('Referrer-Policy', 'no-referrer');
  context.header('Cross-Origin-Resource-Policy', 'same-origin');
};
