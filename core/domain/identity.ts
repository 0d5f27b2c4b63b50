import { z } from 'zod';

/** Identity of a stored record: a UUID made by whoever creates the record. */
export const idSchema = z.uuid();

/** A name that a person gave: trimmed, 1 to 120 characters. */
export const nameSchema = z.string().trim().min(1, 'Give it a name').max(120, 'Use at most 120 characters');

/** Free text: trimmed, up to 4,000 characters, empty when nothing was said. */
export const remarkSchema = z.string().trim().max(4000, 'Use at most 4,000 characters').default('');

/** An instant in milliseconds since 1970-01-01 UTC. */
export const instantMsSchema = z.number().int().nonnegative();

/** How often a record was changed; a change says which state it started from, so that nothing is undone unseen. */
export const versionSchema = z.number({ error: 'Say which version the change started from' }).int().positive();

/** What a record of a trial has besides its own data. */
export const OWNED = { id: idSchema, trialId: idSchema, version: versionSchema, binnedAtMs: instantMsSchema.nullable() };

/** Name under which bytes are kept. */
export const sha256Schema = z.string().regex(/^[0-9a-f]{64}$/);

/** Makes a new identity. */
export function newId(): string {
  return globalThis.crypto.randomUUID();
}
