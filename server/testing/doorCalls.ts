import { request } from 'node:https';
import { checkServerIdentity } from 'node:tls';

/** An answer of the door. */
export interface DoorAnswer {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: unknown;
}

/** A phone before the door: it trusts one authority, holds its key, and asks as a browser does. */
export interface Phone {
  /** @param onPart hears an answer as it comes, where it does not end */
  ask(method: string, path: string, body?: unknown, headers?: Record<string, string>, onPart?: (part: string) => void): Promise<DoorAnswer>;
  /** The cookie it holds. */
  cookie: string | null;
}

/** @param at where the door stands @param ca the authority that the phone was told to trust */
export function openPhone(at: { host: string; port: number; ca: string }, browser = 'Phone/1'): Phone {
  const phone: Phone = {
    cookie: null,
    ask: (method, path, body, headers = {}, onPart = () => undefined) =>
      new Promise((resolve, reject) => {
        const own = {
          'user-agent': browser,
          host: `${at.host}:${at.port}`,
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...(phone.cookie ? { cookie: phone.cookie } : {}),
          ...headers,
        };
        const asked = request(
          { host: at.host, port: at.port, ca: at.ca, method, path, headers: own, agent: false, checkServerIdentity: (_name, cert) => checkServerIdentity(at.host, cert) },
          (answer) => {
            const parts: Buffer[] = [];
            answer.on('data', (part: Buffer) => {
              parts.push(part);
              onPart(part.toString());
            });
            answer.on('end', () => {
              const text = Buffer.concat(parts).toString();
              const [cookie] = answer.headers['set-cookie'] ?? [];
              if (cookie) phone.cookie = cookie.split(';')[0] ?? null;
              const json = answer.headers['content-type']?.includes('json');
              resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: json ? JSON.parse(text) : text });
            });
            answer.on('error', reject);
          },
        );
        asked.on('error', reject);
        asked.end(body === undefined ? undefined : JSON.stringify(body));
      }),
  };
  return phone;
}
