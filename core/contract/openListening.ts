import { z } from 'zod';
import { idSchema } from '../domain/identity.ts';
import { clipsDraftSchema } from '../domain/round.ts';

/** What is to be heard with open eyes, and how loud. */
export const openListeningSchema = clipsDraftSchema;

/** Clips of equal length and loudness, aligned. */
export interface OpenListening {
  matchedLufs: number;
  lengthS: number;
  clips: { recordingId: string; startS: number; gainDb: number }[];
}

const clipSchema = z
  .string()
  .transform((text) => {
    const [recordingId = '', startS, gainDb] = text.split(':');
    return { recordingId, startS, gainDb };
  })
  .pipe(
    z.object({
      recordingId: idSchema,
      startS: z.coerce
        .number<string | undefined>({ error: 'A clip starts in its recording' })
        .min(-60, 'A clip starts in its recording')
        .max(86_400, 'A clip starts in its recording'),
      gainDb: z.coerce.number<string | undefined>({ error: 'A clip has a gain' }).min(-80, 'A clip is moved by 80 dB at most').max(80, 'A clip is moved by 80 dB at most'),
    }),
  );

/** Clips as they stand in the address of their pieces, and what all are brought nearest to, heard after them as they are. */
export const openPiecesSchema = z.object({
  clips: z
    .string({ error: 'Choose the clips that are heard' })
    .transform((clips) => clips.split(','))
    .pipe(z.array(clipSchema).min(2, 'Two clips at least are heard beside each other').max(12, 'Twelve clips at most are heard beside each other')),
  lengthS: z.coerce.number({ error: 'Clips have a length' }).positive('Clips have a length').max(3600, 'Clips last an hour at most'),
  equalTo: idSchema.optional(),
});

/** Where clips lie is worked out once, and stands in the address of every piece: so all of them are of the same clips, whatever changes meanwhile. */
export function openPiecesQuestion({ clips, lengthS }: Pick<OpenListening, 'clips' | 'lengthS'>, equalTo = ''): string {
  const places = clips.map(({ recordingId, startS, gainDb }) => `${recordingId}:${startS}:${gainDb}`).join(',');
  return `?clips=${places}&lengthS=${lengthS}${equalTo && `&equalTo=${equalTo}`}`;
}
