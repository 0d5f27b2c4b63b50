import { z } from 'zod';
import { idSchema } from '../domain/identity.ts';
import { clipsDraftSchema } from '../domain/round.ts';

/** What is to be heard with open eyes, and how loud. */
export const openListeningSchema = clipsDraftSchema;

/** Where a clip lies in its recording; the same for all clips of one listening but for the start and the gain. */
export const openClipSchema = z.object({
  startS: z.coerce.number().min(-60, 'A clip starts in its recording').max(86_400),
  lengthS: z.coerce.number().positive('A clip has a length').max(3600, 'A clip lasts an hour at most'),
  gainDb: z.coerce.number().min(-80, 'A clip is moved by 80 dB at most').max(80, 'A clip is moved by 80 dB at most'),
});

/** The same, brought nearest to another recording by the filters of their pair. */
export const equalisedClipSchema = openClipSchema.extend({ equalTo: idSchema.optional() });

/** Clips of equal length and loudness, aligned. */
export interface OpenListening {
  matchedLufs: number;
  lengthS: number;
  clips: { recordingId: string; startS: number; gainDb: number }[];
}
