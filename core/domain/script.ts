import { z } from 'zod';
import { nameSchema, OWNED, remarkSchema } from './identity.ts';

/** What is spoken or done in a take, who does it, and how long it lasts. */
export const scriptDraftSchema = z.object({
  name: nameSchema,
  text: z.string().trim().max(2000, 'Use at most 2,000 characters').default(''),
  purpose: remarkSchema,
  talker: z.string().trim().max(80, 'Use at most 80 characters').default(''),
  lengthS: z.number().min(1, 'A script lasts 1 to 600 s').max(600, 'A script lasts 1 to 600 s').default(10),
  position: z.number().int().nonnegative().default(0),
});
export type ScriptDraft = z.infer<typeof scriptDraftSchema>;
export const scriptSchema = scriptDraftSchema.extend(OWNED);
/** As it is stored and answered. */
export type StoredScript = z.infer<typeof scriptSchema>;
export type Script = ScriptDraft & { id: string; trialId: string };
