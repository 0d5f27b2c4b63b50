import { z } from 'zod';
import { idSchema, instantMsSchema, remarkSchema } from './identity.ts';

/** A place in a recording that somebody wants to come back to. */
export const momentDraftSchema = z.object({
  recordingId: idSchema,
  /** From the start of the recording. */
  atS: z.number({ error: 'Say when, in seconds from the start of the recording' }).min(0, 'A moment lies at 0 s or later').max(86_400, 'A moment lies within a day'),
  /** What is heard there; may be empty. */
  note: remarkSchema,
});
export type MomentDraft = z.infer<typeof momentDraftSchema>;

/** What of a moment can be changed. */
export const momentChangeSchema = momentDraftSchema.pick({ note: true });

export const momentSchema = momentDraftSchema.extend({ id: idSchema, trialId: idSchema, createdAtMs: instantMsSchema, binnedAtMs: instantMsSchema.nullable() });
export type Moment = z.infer<typeof momentSchema>;

/** As it is called where it is listed: by what was noted, or by its time. */
export const momentName = ({ atS, note }: Pick<Moment, 'atS' | 'note'>): string => note || `mark at ${atS.toFixed(1)} s`;
