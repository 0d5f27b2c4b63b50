import { z } from 'zod';
import type { WavFormat } from '../audio/wavFormat.ts';
import type { ChannelReport, FileReport, LevelSeries, Span } from '../measure/report.types.ts';
import type { MatchedBy } from '../takes/matchFile.ts';
import { idSchema } from './identity.ts';

export type MeasureState = 'queued' | 'measuring' | 'done' | 'failed';

/** A file that came in: its bytes are kept under their SHA-256 and never changed. */
export interface AudioFile {
  id: string;
  trialId: string;
  name: string;
  sha256: string;
  sizeBytes: number;
  uploadedAtMs: number;
  format: WavFormat | null;
  state: MeasureState;
  /** Why it could not be read, when it could not. */
  failure: string | null;
  methodVersion: number | null;
  warnings: string[];
  takeId: string | null;
  matchedBy: MatchedBy | null;
}

/** One channel of one file, tied to a take and to one of its candidates. */
export interface Recording {
  id: string;
  fileId: string;
  trialId: string;
  channelIndex: number;
  trackName: string | null;
  takeId: string | null;
  candidateId: string | null;
  /** Null until it was measured. */
  report: ChannelReport | null;
}

/** A recording looked at from inside. */
export interface RecordingDetail extends Recording {
  file: AudioFile;
  programme: FileReport['programme'] | null;
  series: LevelSeries | null;
  roomTone: Span | null;
}

/** A stretch that is marked as room tone by hand; null takes the mark away. */
export const roomToneSchema = z.object({
  roomTone: z
    .tuple([z.number().min(0, 'Room tone starts at 0 s or later'), z.number().max(86_400)])
    .refine(([startS, endS]) => endS - startS >= 0.15, 'Room tone needs 0.15 s or more')
    .nullable(),
});
export type RoomToneMark = z.infer<typeof roomToneSchema>;

/** Ties a file to a take, and its channels to candidates of that take. */
export const assignmentSchema = z.object({
  takeId: idSchema.nullable(),
  channels: z
    .array(
      z.object({
        channelIndex: z.number().int().min(0).max(31),
        candidateId: idSchema.nullable(),
        /** A name for the channel in place of the file's own; left out, it stays. */
        trackName: z.string().trim().max(60, 'A channel name has at most 60 characters').optional(),
      }),
    )
    .max(32),
});
export type Assignment = z.infer<typeof assignmentSchema>;
