import { z } from 'zod';
import { clipsDraftSchema } from '../domain/round.ts';

/** What a reel is made of, as it stands in an address: recordings parted by commas. */
export const reelQuerySchema = z.object({
  recordingIds: z
    .string({ error: 'Choose the recordings of the reel' })
    .transform((ids) => ids.split(','))
    .pipe(clipsDraftSchema.shape.recordingIds),
  targetLufs: z.coerce.number().pipe(clipsDraftSchema.shape.targetLufs.unwrap()).default(-23),
  ceilingDbtp: z.coerce.number().pipe(clipsDraftSchema.shape.ceilingDbtp.unwrap()).default(-1),
  order: z.enum(['clip', 'phrase']).default('clip'),
  /** What is heard between clips: nothing, or the letter of the next. */
  gaps: z.enum(['silent', 'spoken']).default('silent'),
  gapS: z.coerce
    .number({ error: 'The silence between clips is 0 to 5 s' })
    .min(0, 'The silence between clips is 0 to 5 s')
    .max(5, 'The silence between clips is 0 to 5 s')
    .default(0.7),
});

/** What a reel will be, told before it is fetched. */
export interface ReelTold {
  parts: number;
  lengthS: number;
  /** Seconds that are left out at the end of each clip, since a reel holds no longer ones. */
  leftOutS: number;
}
