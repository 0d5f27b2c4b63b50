import { z } from 'zod';
import { idSchema } from './identity.ts';

/** A name of a recorder: all of its files have one clock. */
export const recorderNameSchema = z.string({ error: 'Say which recorder' }).trim().min(1, 'Give the recorder a name').max(120, 'A name has at most 120 characters');

/** Forty years: a clock that was never set begins long ago. */
export const MOST_AHEAD_S = 1.3e9;

/** What somebody said of a recorder; all else is found from its files. */
export const recorderSchema = z.object({
  trialId: idSchema,
  name: recorderNameSchema,
  /** By how much its clock is ahead of the log, in seconds; negative is behind. Null is found. */
  aheadS: z
    .number({ error: 'Say by how many seconds it is ahead; behind is negative' })
    .min(-MOST_AHEAD_S, 'No clock is as far off as that')
    .max(MOST_AHEAD_S, 'No clock is as far off as that')
    .nullable(),
  /** The candidate of each of its channels; null is found by name. */
  candidateIds: z.array(idSchema.nullable()).max(32, 'A file has at most 32 channels'),
});
export type Recorder = z.infer<typeof recorderSchema>;
