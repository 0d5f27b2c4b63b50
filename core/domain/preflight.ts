import { z } from 'zod';
import { idSchema, instantMsSchema, nameSchema } from './identity.ts';

/** One check of the pre-flight that somebody made; the key says of which chain and what. */
export const preflightTickSchema = z.object({
  key: z.string().min(1).max(200),
  person: nameSchema,
  atMs: instantMsSchema,
});
export type PreflightTick = z.infer<typeof preflightTickSchema>;

export const preflightRowSchema = preflightTickSchema.extend({ trialId: idSchema });

/** Ticks or unticks checks in one go. */
export const preflightChangeSchema = z.object({
  keys: z.array(z.string().min(1).max(200)).min(1).max(200),
  ticked: z.boolean(),
  person: nameSchema,
});
