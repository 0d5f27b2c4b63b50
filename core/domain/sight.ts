import { z } from 'zod';
import { idSchema, instantMsSchema, OWNED, remarkSchema } from './identity.ts';

const person = z.string().trim().min(1, 'Say who').max(80, 'Use at most 80 characters');
const share = z.number().min(0).max(1);

/** One answer to whether a microphone is seen in a frame. Asked again it may be another; both stand. */
export const sightDraftSchema = z.object({
  placementId: idSchema,
  rigId: idSchema.nullable().default(null),
  frameId: idSchema.nullable().default(null),
  seen: z.enum(['not seen', 'seen, and accepted', 'seen, and refused']),
  askedBy: person,
  answeredBy: person,
  atMs: instantMsSchema,
  /** The spot in the photograph that goes with it, as shares of its width and height from the upper left. */
  spot: z.object({ across: share, down: share }).nullable().default(null),
  remark: remarkSchema,
});
export type SightDraft = z.infer<typeof sightDraftSchema>;
export const sightSchema = sightDraftSchema.extend(OWNED);
/** As it is stored and answered. */
export type Sight = z.infer<typeof sightSchema>;
