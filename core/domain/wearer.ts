import { z } from 'zod';
import { nameSchema, OWNED, remarkSchema } from './identity.ts';

export const BUILDS = ['slight', 'middle', 'broad', 'child'] as const;
export type Build = (typeof BUILDS)[number];

/** Somebody who wears microphones, as far as it shows on a neutral figure and counts for sound and radio. */
export const wearerDraftSchema = z.object({
  name: nameSchema,
  build: z.enum(BUILDS).default('middle'),
  heightM: z.number().min(0.8, 'A person is 0.8 to 2.3 m tall').max(2.3, 'A person is 0.8 to 2.3 m tall').default(1.72),
  hair: z.enum(['none', 'short', 'long']).default('short'),
  head: z.enum(['bare', 'hat', 'helmet']).default('bare'),
  glasses: z.boolean().default(false),
  /** Where the transmitter is worn, turned to the wearer's left from straight ahead; 180 is the small of the back. */
  transmitterDeg: z.number().min(-180, 'A direction is -180 to 180 degrees').max(180, 'A direction is -180 to 180 degrees').default(180),
  /** Radio frequency, for what the body takes of it. */
  radioMhz: z.number().min(30, 'A radio frequency is 30 to 6,000 MHz').max(6000, 'A radio frequency is 30 to 6,000 MHz').default(600),
  /** Whether the wearer agreed to be rigged, and to whom and where, in their words. */
  consent: z.string().trim().max(300, 'Use at most 300 characters').default(''),
  remark: remarkSchema,
  position: z.number().int().nonnegative().default(0),
});
export type WearerDraft = z.infer<typeof wearerDraftSchema>;
export const wearerSchema = wearerDraftSchema.extend(OWNED);
/** As it is stored and answered. */
export type StoredWearer = z.infer<typeof wearerSchema>;
