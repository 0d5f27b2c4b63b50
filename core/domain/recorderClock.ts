import { z } from 'zod';
import { idSchema } from './identity.ts';

/** A name of a recorder: all of its files have one clock. */
export const recorderNameSchema = z.string({ error: 'Say which recorder' }).trim().min(1, 'Give the recorder a name').max(120, 'A name has at most 120 characters');

/** Forty years: a clock that was never set begins long ago. */
const MOST_AHEAD_S = 1.3e9;

/** By how much the clock of a recorder is ahead of the log, in seconds, as somebody set it; negative is behind. */
export const aheadSchema = z
  .number({ error: 'Say by how many seconds it is ahead; behind is negative' })
  .min(-MOST_AHEAD_S, 'No clock is as far off as that')
  .max(MOST_AHEAD_S, 'No clock is as far off as that');

/** A clock of a recorder that somebody set. */
export const recorderClockSchema = z.object({ trialId: idSchema, recorder: z.string(), aheadS: aheadSchema });
export type RecorderClockByHand = z.infer<typeof recorderClockSchema>;
