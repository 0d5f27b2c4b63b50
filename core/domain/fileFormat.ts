import { z } from 'zod';

const word = z.string().nullable();

/** What the header of a file says of its audio. */
export const fileFormatSchema = z.object({
  container: z.enum(['RIFF', 'RF64', 'BW64']),
  encoding: z.enum(['pcm', 'float']),
  bitDepth: z.number(),
  sampleRateHz: z.number(),
  channels: z.number(),
  frames: z.number(),
  durationS: z.number(),
  /** Start of the file after midnight, from bext; null when the file does not say. */
  timeReferenceS: z.number().nullable(),
  description: word,
  scene: word,
  take: word,
  tape: word,
  /** A name per channel; null where the file gives none. */
  trackNames: z.array(word),
});
export type FileFormat = z.infer<typeof fileFormatSchema>;

/** How the remark begins that tells that a file ends before its header says. */
export const CUT_SHORT = 'truncated:';

/** Whether the remarks on a file, as a list or as its text, say that it was cut short. */
export function isCutShort(warnings: readonly string[] | string): boolean {
  return typeof warnings === 'string' ? warnings.includes(CUT_SHORT) : warnings.some((warning) => warning.startsWith(CUT_SHORT));
}
