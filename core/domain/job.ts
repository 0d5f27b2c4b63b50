import { z } from 'zod';
import { idSchema, instantMsSchema } from './identity.ts';

/** Work that the server does beside its answers. */
export const jobKindSchema = z.enum(['measure', 'against', 'backup', 'pair', 'cut', 'clip', 'tone', 'plan', 'places', 'levels', 'doubt', 'effects', 'allocation']);
export type JobKind = z.infer<typeof jobKindSchema>;
export const jobStateSchema = z.enum(['queued', 'running', 'done', 'failed', 'cancelled']);

/** What a person waits for goes before bulk work. */
export const PRIORITY = { waitedFor: 10, bulk: 0 } as const;
/** A job whose worker died is tried so often before it has failed. */
export const MOST_ATTEMPTS = 3;

export const jobSchema = z.object({
  id: idSchema,
  kind: jobKindSchema,
  trialId: idSchema.nullable(),
  /** What it is about: a file, a round, a recording, a trial. */
  subjectId: idSchema,
  /** Says of what, exactly, the result is; the same key is the same work. */
  key: z.string(),
  priority: z.number().int(),
  state: jobStateSchema,
  attempts: z.number().int(),
  /** Share done, 0 to 1. */
  progress: z.number(),
  failure: z.string().nullable(),
  createdAtMs: instantMsSchema,
  endedAtMs: instantMsSchema.nullable(),
});
export type Job = z.infer<typeof jobSchema>;
