import { z } from 'zod';

/** Identity of a stored record: a UUID made by whoever creates the record. */
export const idSchema = z.uuid();

/** A name that a person gave: trimmed, 1 to 120 characters. */
export const nameSchema = z.string().trim().min(1, 'Give it a name').max(120, 'Use at most 120 characters');

/** Free text: trimmed, up to 4,000 characters, empty when nothing was said. */
export const remarkSchema = z.string().trim().max(4000, 'Use at most 4,000 characters').default('');

/** An instant in milliseconds since 1970-01-01 UTC. */
export const instantMsSchema = z.number().int().nonnegative();

/** Makes a new identity. */
export function newId(): string {
  return globalThis.crypto.randomUUID();
}
