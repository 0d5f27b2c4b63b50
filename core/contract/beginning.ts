import { z } from 'zod';
import { idSchema, nameSchema } from '../domain/identity.ts';
import type { NamedChannel } from '../takes/beginning/microphoneNames.ts';

/** A part of a file that is of a moment; null is its start, or its end. */
export interface MomentPart {
  fileId: string;
  startS: number | null;
  endS: number | null;
}

/** Files that lie in no take yet, and what of them sounded at one moment. */
export interface Beginning {
  /** In the order of their time, or of their names. */
  moments: MomentPart[][];
  channels: NamedChannel[];
  /** Names of the microphones, one a channel, in each way of reading them, likeliest first. */
  readings: string[][];
  /** Pairs of files that were listened to, of how many. */
  looked: number;
  of: number;
  /** More than can be listened to while somebody waits: nothing was. */
  tooMany: boolean;
  /** Files whose sound could not be listened to, and why. */
  troubles: string[];
}

const fileTimeS = z.number().min(0).max(1e6).nullable();
/** Lays files out: microphones become candidates, moments become takes. */
export const layOutSchema = z.object({
  moments: z
    .array(
      z
        .array(z.object({ fileId: idSchema, startS: fileTimeS, endS: fileTimeS }))
        .min(1)
        .max(200, 'At most 200 files of one take'),
    )
    .min(1, 'Bring recordings in first')
    .max(2000, 'At most 2,000 takes at once'),
  /** Which microphone a channel is of; null leaves it out of all takes. */
  channels: z
    .array(z.object({ fileId: idSchema, channelIndex: z.number().int().min(0).max(31), microphone: nameSchema.nullable() }))
    .min(1, 'Bring recordings in first')
    .max(20_000),
});
export type LayOut = z.infer<typeof layOutSchema>;

/** What was made of files. */
export interface LaidOut {
  takes: { takeId: string; setups: { setupId: string; candidateId: string }[] }[];
  candidateIds: string[];
}
