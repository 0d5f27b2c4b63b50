import { z } from 'zod';

const word = z.string().nullable();

/** A moment that somebody marked while recording, or later: seconds from the start of the file, and what was written to it. */
export const markerSchema = z.object({ atS: z.number(), label: z.string() });
export type Marker = z.infer<typeof markerSchema>;

/** What the header of a file says of its audio. */
export const fileFormatSchema = z.object({
  container: z.enum(['RIFF', 'RF64', 'BW64', 'FLAC', 'AIFF', 'MP3', 'AAC', 'Ogg', 'MP4', 'MOV']),
  /** How the sound is coded: PCM, FLAC, MP3, AAC... */
  codec: z.string().default('PCM'),
  /** Whether the codec left something out. */
  lossy: z.boolean().default(false),
  /** What was odd when its sound was taken out of it. */
  remarks: z.array(z.string()).default([]),
  encoding: z.enum(['pcm', 'float']),
  bitDepth: z.number(),
  sampleRateHz: z.number(),
  channels: z.number(),
  frames: z.number(),
  durationS: z.number(),
  /** Start of the file after midnight, from bext; null when the file does not say. */
  timeReferenceS: z.number().nullable(),
  /** When it began by the recorder's own clock: a date and time, with a Z where it is universal time, without where it is that of the place. */
  startsAt: word.default(null),
  /** What the recorder calls itself. */
  originator: word.default(null),
  description: word,
  scene: word,
  take: word,
  tape: word,
  /** A name per channel; null where the file gives none. */
  trackNames: z.array(word),
  /** Channels with which a track begins that the container has as stereo. */
  stereoFrom: z.array(z.number().int()).default([]),
  /** Moments that are marked in it, in the order of their time. */
  markers: z.array(markerSchema).default([]),
});
export type FileFormat = z.infer<typeof fileFormatSchema>;

/** How the remark begins that tells that a file ends before its header says. */
export const CUT_SHORT = 'truncated:';

/** Whether the remarks on a file, as a list or as its text, say that it was cut short. */
export function isCutShort(warnings: readonly string[] | string): boolean {
  return typeof warnings === 'string' ? warnings.includes(CUT_SHORT) : warnings.some((warning) => warning.startsWith(CUT_SHORT));
}
