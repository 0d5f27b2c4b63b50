import { z } from 'zod';
import { idSchema, instantMsSchema, nameSchema } from './identity.ts';

/** What a device that was let in may do: log one trial in the field, or listen as one listener of a round. */
export const GUEST_ROLES = ['log', 'listen'] as const;
export type GuestRole = (typeof GUEST_ROLES)[number];

/** A device that was let in through the door, until it is put out or its day is over. */
export const guestSchema = z.object({
  id: idSchema,
  trialId: idSchema,
  role: z.enum(GUEST_ROLES),
  name: nameSchema,
  /** Whose scores it gives; only for listening. */
  listenerId: idSchema.nullable(),
  /** SHA-256 of the key that only the device holds. */
  keyHash: z.string(),
  /** SHA-256 of the certificate it came in under: a device never comes back under another. */
  certificate: z.string(),
  /** How its browser calls itself; a key that turns up in another browser was stolen. */
  browser: z.string(),
  enteredAtMs: instantMsSchema,
  expiresAtMs: instantMsSchema,
  seenAtMs: instantMsSchema,
  putOutAtMs: instantMsSchema.nullable(),
  /** By how much its clock was behind this computer's when it last sent lines; negative is ahead. Null while it sent none. */
  clockBehindMs: z.number().int().nullable(),
  /** Why it was refused last, where it was. */
  refused: z.string().nullable(),
});
export type Guest = z.infer<typeof guestSchema>;
