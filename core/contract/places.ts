import { z } from 'zod';
import { idSchema } from '../domain/identity.ts';
import { recorderNameSchema, recorderSchema } from '../domain/recorder.ts';
import { type MatchedBy, matchedBySchema } from '../domain/recording.ts';
import type { DayCut } from '../takes/places/dayCuts.ts';
import type { TimeBy } from '../takes/places/fileTime.ts';
import type { ClockPlace, RecorderClock } from '../takes/places/placeByClock.ts';
import type { SplitFile } from '../takes/places/splitFiles.ts';

/** A recorder of a trial, and its clock against the log's. */
export interface RecorderOfTrial {
  recorder: string;
  files: number;
  /** Files that say when they began. */
  timed: number;
  clock: RecorderClock | null;
  aheadByHandS: number | null;
  /** The candidate of each channel, as somebody said it or as its files have it so far. */
  candidateIds: (string | null)[];
  /** Channels with which its sources begin: a channel each, or two that are stereo; a backup is none. */
  sources: number[];
}

/** Where a file lies, and where it belongs as far as can be told. */
export interface FilePlace extends Omit<ClockPlace, 'startsAtMs'> {
  recorder: string;
  /** When it began by its own clock, and where that is from; null where nothing says. */
  ownStartMs: number | null;
  timeBy: TimeBy | null;
  /** The same by the log's clock; null as well where the recorder's clock is not known. */
  startsAtMs: number | null;
  /** Where it lies now, by what, and in how many takes where it was cut. */
  placed: { takeId: string; by: MatchedBy; takes: number } | null;
  /** How it would be cut about the takes that it runs over; empty where it need not be. */
  cuts: PartOfTake[];
  /** What says where it belongs. */
  by: 'clock' | 'sound';
  /** The file in place that it sounds like, where sound says it, or contradicts the clock. */
  like: { name: string; takeId: string } | null;
}

/** A part of a long file that is of a take; where its log start lies in the file is known only by the clock. */
export type PartOfTake = Omit<DayCut, 'logStartS'> & { logStartS: number | null };

export interface Places {
  recorders: RecorderOfTrial[];
  files: FilePlace[];
  /** Recordings that a recorder split into several files. */
  split: SplitFile[];
  /** Pairs of files that were listened to, of how many. */
  looked: number;
  of: number;
  /** More than can be listened to while somebody waits: nothing was. */
  tooMany: boolean;
}

const fileTimeS = z.number().min(0).max(1e6);
const channelTies = z.array(z.object({ channelIndex: z.number().int().min(0).max(31), setupId: idSchema.nullable() })).max(32);
/** A part of a long file that is of a take. */
const cutSchema = z
  .object({
    takeId: idSchema,
    startS: fileTimeS,
    endS: fileTimeS,
    logStartS: z.number().min(-1e6).max(1e6).nullable(),
    /** About its take by the log or by sound, or by somebody as a passage of the file. */
    cutBy: z.enum(['log', 'passage']).default('log'),
    channels: channelTies.optional(),
  })
  .refine(({ startS, endS }) => endS > startS, 'A part ends after it begins');

/** Puts files into takes, or takes them out; with the setup of each channel where that is known, else they are found by name and habit. */
export const placingsSchema = z.object({
  places: z
    .array(
      z.object({
        fileId: idSchema,
        takeId: idSchema.nullable(),
        by: matchedBySchema.nullable(),
        /** Where it lay as far as the page knew; where it lies elsewhere meanwhile, nothing is put. */
        from: idSchema.nullable().optional(),
        channels: channelTies.optional(),
        /** Takes that it is cut about; then `takeId` is that of the first. */
        cuts: z.array(cutSchema).max(500, 'At most 500 takes of one file').optional(),
      }),
    )
    .min(1, 'Choose a file')
    .max(1000, 'At most 1,000 files at once'),
});
export type Placings = z.input<typeof placingsSchema>;

/** Says by how much the clock of a recorder is off, or which candidate one of its channels is of; what is left out stays. */
export const recorderPatchSchema = z.object({
  name: recorderNameSchema,
  aheadS: recorderSchema.shape.aheadS.optional(),
  channel: z.object({ index: z.number().int().min(0).max(31), candidateId: idSchema.nullable() }).optional(),
});
export type RecorderPatch = z.infer<typeof recorderPatchSchema>;
/** Says which recorder wrote files. */
export const recorderSetSchema = z.object({ fileIds: z.array(idSchema).min(1, 'Choose a file').max(1000, 'At most 1,000 files at once'), recorder: recorderNameSchema });

/** Joins files that a recorder split, in their order. */
export const joinSchema = z.object({ fileIds: z.array(idSchema).min(2, 'Choose two files or more').max(200, 'At most 200 files of one recording') });
/** The file that they are joined to. */
export interface Joined {
  fileId: string;
  name: string;
}
/** Takes joining back. */
export const unjoinSchema = joinSchema.extend({ fileId: idSchema });
