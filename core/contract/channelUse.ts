import { z } from 'zod';
import { idSchema } from '../domain/identity.ts';

/** Channels of a file that are the first of a stereo recording; the one after each is its second. */
export const stereoSetSchema = z.object({
  firstChannels: z
    .array(z.number().int().min(0).max(30))
    .max(16)
    .refine((channels) => channels.every((channel) => !channels.includes(channel + 1)), 'A channel is of one stereo recording only'),
  /** For all files of the same recorder that have as many channels. */
  allOfRecorder: z.boolean().default(false),
});
export type StereoSet = z.input<typeof stereoSetSchema>;

/** Two recordings that are given each other's candidate. */
export const swapSchema = z.object({ recordingIds: z.tuple([idSchema, idSchema]) });
