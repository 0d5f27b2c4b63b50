import { z } from 'zod';
import { idSchema, nameSchema } from '../domain/identity.ts';
import type { NamedChannel } from '../takes/beginning/microphoneNames.ts';

/** A part of a file that is of a moment; null is its start, or its end. */
export interface MomentPart {
  fileId: string;
  startS: number | null;
  endS: number | null;
}

/** What sounded at one moment: of a take that is there already, or of one that is to be made. */
export interface BegunMoment {
  takeId: string | null;
  /** The number of its take, or the one that it would get. */
  slate: number;
  parts: MomentPart[];
}

/** Files that lie in no take yet, and what of them sounded at one moment. */
export interface Beginning {
  /** Those of takes that are there, then new ones in the order of their time, or of their names. */
  moments: BegunMoment[];
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
      z.object({
        /** The take that the files join; null for a new one. */
        takeId: idSchema.nullable(),
        parts: z
          .array(z.object({ fileId: idSchema, startS: fileTimeS, endS: fileTimeS }))
          .min(1)
          .max(200, 'At most 200 files of one take'),
      }),
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
  /** Sent as it is, it takes all of it back. */
  back: LayBack;
}

const ids = z.array(idSchema).max(20_000);
/** What laying out made of which files, to be taken back. */
export const layBackSchema = z.object({
  fileIds: ids,
  /** Takes and candidates that it made. */
  takeIds: ids,
  candidateIds: ids,
  /** Takes that were there, and the setups that they were given. */
  joined: z.array(z.object({ takeId: idSchema, setupIds: ids })).max(2000),
});
export type LayBack = z.infer<typeof layBackSchema>;
