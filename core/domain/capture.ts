import { z } from 'zod';
import { idSchema, instantMsSchema } from './identity.ts';

/** Channels that can be recorded at once. */
export const MOST_CAPTURED = 16;
/** A piece of sound on its way to the disk: no more than this is lost when everything stops at once. */
export const PIECE_S = 0.25;
/** How samples are kept: 24 bit, as field recorders write. */
export const CAPTURE_FORMAT = { encoding: 'pcm', bitDepth: 24 } as const;

/** What a channel of an input is a recording of. */
export const capturedChannelSchema = z.object({ name: z.string().trim().max(60, 'Use at most 60 characters'), setupId: idSchema.nullable() });
export type CapturedChannel = z.infer<typeof capturedChannelSchema>;

/** A take that is recorded straight in, as the page announces it. */
export const captureDraftSchema = z.object({
  /** Made by the page, so that a recording that is announced twice is one. */
  id: idSchema,
  takeId: idSchema,
  channels: z.array(capturedChannelSchema).min(1, 'Choose a channel').max(MOST_CAPTURED, `At most ${MOST_CAPTURED} channels are recorded at once`),
  sampleRateHz: z.number().int().min(8000, 'The rate is 8,000 to 192,000 Hz').max(192_000, 'The rate is 8,000 to 192,000 Hz'),
  startedAtMs: instantMsSchema,
  /** 1, then 2, 3... for what came after a recording had been closed without it. */
  part: z.number().int().min(1).max(99).default(1),
});
export type CaptureDraft = z.infer<typeof captureDraftSchema>;

/** A take that is, or was, recorded straight in. Its file is made when it is closed. */
export const captureSchema = captureDraftSchema.extend({ trialId: idSchema, name: z.string(), fileId: idSchema.nullable(), failure: z.string().nullable() });
export type Capture = z.infer<typeof captureSchema>;

/** Frames of a piece; all but the last have exactly so many, so that the length of the file says how many are there. */
export const pieceFrames = (sampleRateHz: number): number => Math.round(sampleRateHz * PIECE_S);
