import { X509Certificate } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';

const HOUR_MS = 3_600_000;
/** A certificate that ends sooner is made anew: a day's work must not end in the middle. */
const LEAST_LEFT_MS = 2 * HOUR_MS;
/** Clocks of phones may be behind. */
const BEFORE_MS = 24 * HOUR_MS;

const keptSchema = z.object({ address: z.string(), untilMs: z.number(), key: z.string(), cert: z.string(), authority: z.string() });

/** What the door shows for itself: a certificate for one address, signed by an authority that signed nothing else. */
export interface Certificate extends z.infer<typeof keptSchema> {
  /** SHA-256 of the certificate in pairs of hexadecimal digits. */
  fingerprint: string;
  isNew: boolean;
}

/**
 * The certificate of an address: the one that is kept in the data folder while it lasts, else a new one. The
 * authority's own key is thrown away once it signed: a phone that trusts it trusts this computer at this
 * address until the certificate ends, and nothing else, ever.
 * @param lastsMs how long a new one lasts
 */
export async function certificateFor(dataFolder: string, address: string, lastsMs: number, nowMs = Date.now()): Promise<Certificate> {
  const folder = join(dataFolder, 'door');
  const path = join(folder, 'certificate.json');
  const kept = await readKept(path);
  if (kept && kept.address === address && kept.untilMs - nowMs > LEAST_LEFT_MS) return { ...kept, fingerprint: fingerprintOf(kept.cert), isNew: false };
  const made = await makeCertificate(address, nowMs, lastsMs);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  // Written whole or not at all, and for nobody else to read.
  await writeFile(`${path}.new`, JSON.stringify(made), { mode: 0o600 });
  await rename(`${path}.new`, path);
  return { ...made, fingerprint: fingerprintOf(made.cert), isNew: true };
}

async function readKept(path: string): Promise<z.infer<typeof keptSchema> | null> {
  const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });
  if (text === null) return null;
  try {
    return keptSchema.parse(JSON.parse(text));
  } catch (error) {
    console.warn('The certificate of the door cannot be read and is made anew:', (error as Error).message);
    return null;
  }
}

async function makeCertificate(address: string, nowMs: number, lastsMs: number): Promise<z.infer<typeof keptSchema>> {
  // Looked for only where the door is opened for the first time: it is long to load.
  const { generate } = await import('selfsigned');
  const [notBeforeDate, notAfterDate] = [new Date(nowMs - BEFORE_MS), new Date(nowMs + lastsMs)];
  const shape = { keyType: 'ec', curve: 'P-256', algorithm: 'sha256', notBeforeDate, notAfterDate } as const;
  const day = new Date(nowMs).toISOString().slice(0, 10);
  const authority = await generate([{ name: 'commonName', value: `Marvet on ${address}, ${day}` }], {
    ...shape,
    extensions: [
      { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ],
  });
  const own = await generate([{ name: 'commonName', value: address }], {
    ...shape,
    ca: { key: authority.private, cert: authority.cert },
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      { name: 'subjectAltName', altNames: [{ type: 7, ip: address }] },
    ],
  });
  return { address, untilMs: notAfterDate.getTime(), key: own.private, cert: own.cert, authority: authority.cert };
}

export const fingerprintOf = (cert: string): string => new X509Certificate(cert).fingerprint256;
