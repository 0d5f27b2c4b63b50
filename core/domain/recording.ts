import { z } from 'zod';
import { correctionSchema, MOST_CORRECTIONS } from './correction.ts';
import { fileFormatSchema } from './fileFormat.ts';
import { idSchema, instantMsSchema, sha256Schema } from './identity.ts';
import { MEASURE_IDS, type MeasureId } from './measureId.ts';

export const measureStateSchema = z.enum(['queued', 'measuring', 'done', 'failed']);
export type MeasureState = z.infer<typeof measureStateSchema>;

/** How a recording found its take. */
export const matchedBySchema = z.enum(['file name', 'iXML or bext', 'clock', 'sound', 'hand', 'recorded here']);
export type MatchedBy = z.infer<typeof matchedBySchema>;

/** A stretch of time in seconds from the start of the recording. */
export const spanSchema = z.tuple([z.number().min(0), z.number().max(86_400)]);

/** A file that came in: its bytes are kept under their SHA-256 and never changed. */
export const audioFileSchema = z.object({
  id: idSchema,
  trialId: idSchema,
  name: z.string(),
  /** The sound that is measured and heard. */
  sha256: sha256Schema,
  /** The file as it came, where its sound was taken out of it; null where it is the sound itself. */
  originalSha256: sha256Schema.nullable().default(null),
  sizeBytes: z.number().int(),
  uploadedAtMs: instantMsSchema,
  /** When it was last written, by the clock of its recorder, as the card that it came from says. */
  modifiedAtMs: instantMsSchema.nullable().default(null),
  /** The recorder that wrote it: its files have one clock. Null in files that came before recorders were told apart. */
  recorder: z.string().nullable().default(null),
  format: fileFormatSchema,
  state: measureStateSchema,
  /** Why it could not be measured, when it could not. */
  failure: z.string().nullable(),
  methodVersion: z.number().int().nullable(),
  warnings: z.array(z.string()),
  /** Whether a slate is spoken on it; null follows the trial. */
  slateSpoken: z.boolean().nullable(),
  binnedAtMs: instantMsSchema.nullable(),
});
export type AudioFile = z.infer<typeof audioFileSchema>;

/** Figures by measure id, without those that could not be measured. */
export type Figures = Partial<Record<MeasureId, number>>;
export const figuresSchema = z
  .record(z.string(), z.number())
  .transform((figures) => Object.fromEntries(Object.entries(figures).filter(([id]) => MEASURE_IDS.includes(id as MeasureId))) as Figures);

/** How the two channels of a stereo recording go together: their correlation, and what the sum to mono loses. */
export const stereoSchema = z.object({ correlation: z.number(), monoLossDb: z.number() });

/** What a recording is a backup of: the same sound, lower; and of how many clipped moments of it how many are whole here. */
export const backupSchema = z.object({
  ofChannel: z.number().int(),
  /** The file of that channel, where it is another one. */
  ofFile: z.object({ id: idSchema, name: z.string() }).optional(),
  lowerByDb: z.number(),
  clipped: z.number().int(),
  saved: z.number().int(),
});
export type Backup = z.infer<typeof backupSchema>;

/** A span of one or two channels of one file, tied to a take and to one of its setups. */
export const recordingSchema = z.object({
  id: idSchema,
  fileId: idSchema,
  trialId: idSchema,
  /** Channels of the file, counted from 0: one, or the two of a stereo pair. */
  channels: z.array(z.number().int().min(0).max(31)).min(1).max(2),
  /** From where to where in the file; null is its start, or its end. All other times of a recording count from its own start. */
  startS: z.number().nullable(),
  endS: z.number().nullable(),
  /**
   * How its start is known: where something was switched there, by the clocks of file and log, by the moment of the press alone, or by
   * hand; `log` where it was cut out of a longer file about its take; `passage` where somebody cut the file by ear, by picture or by marker.
   */
  cutBy: z.enum(['clock', 'press', 'hand', 'log', 'passage']).nullable().default(null),
  /** Where in its file the log says that its take began, by the clock of its recorder; null where that is not known. */
  logStartS: z.number().nullable().default(null),
  trackName: z.string().nullable(),
  takeId: idSchema.nullable(),
  setupId: idSchema.nullable(),
  matchedBy: matchedBySchema.nullable(),
  figures: figuresSchema.nullable(),
  /** Of two channels, once they were measured; null of one. */
  stereo: stereoSchema.nullable().default(null),
  /** It holds the same sound as another channel of its file, or of another file, lower, and is no candidate; null where it does not. */
  backup: backupSchema.nullable().default(null),
  /** Room tone marked by hand; wins over the pauses that were found. */
  roomTone: spanSchema.nullable(),
  /** The part that is judged, marked by hand; null is found. */
  performance: spanSchema.nullable(),
  /** Events that somebody marked, or said are none. */
  corrections: z.array(correctionSchema).max(MOST_CORRECTIONS),
});
export type Recording = z.infer<typeof recordingSchema>;

export type CutBy = Recording['cutBy'];

/** Whether a recording was cut out of a longer file as the part of a take, and not where something was switched. */
export const isPart = (cutBy: CutBy): cutBy is 'log' | 'passage' => cutBy === 'log' || cutBy === 'passage';

/** How long a recording is, in a file of a length. */
export const recordingLengthS = ({ startS, endS }: Pick<Recording, 'startS' | 'endS'>, fileLengthS: number): number => (endS ?? fileLengthS) - (startS ?? 0);

/** Where in its file a recording begins, moved by hand. */
export const cutSchema = z.object({ startS: z.number({ error: 'Say where it begins, in seconds of the file' }).min(0, 'It begins at 0 s or later').max(86_400) });

const markedSpan = (what: string, leastS: number) =>
  z
    .tuple([
      z.number({ error: `${what} starts at 0 s or later` }).min(0, `${what} starts at 0 s or later`),
      z.number({ error: `Say where ${what.toLowerCase()} ends` }).max(86_400),
    ])
    .refine(([startS, endS]) => endS - startS >= leastS, `${what} needs ${leastS} s or more`)
    .nullable();

/** A stretch that is marked as room tone by hand; null takes the mark away. */
export const roomToneSchema = z.object({ roomTone: markedSpan('Room tone', 0.15) });
export type RoomToneMark = z.infer<typeof roomToneSchema>;

/** The part that is judged, marked by hand; null leaves it to be found. */
export const performanceSchema = z.object({ performance: markedSpan('The performance', 0.4) });
export type PerformanceMark = z.infer<typeof performanceSchema>;

/** Ties the recordings of a file to a take and to setups of that take. */
export const assignmentSchema = z.object({
  takeId: idSchema.nullable(),
  channels: z
    .array(
      z.object({
        channelIndex: z.number().int().min(0).max(31),
        setupId: idSchema.nullable(),
        /** A name for the channel in place of the file's own; left out, it stays. */
        trackName: z.string().trim().max(60, 'A channel name has at most 60 characters').optional(),
      }),
    )
    .max(32),
  slateSpoken: z.boolean().nullable().optional(),
});
export type Assignment = z.infer<typeof assignmentSchema>;
