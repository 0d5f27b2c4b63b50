import { z } from 'zod';
import { idSchema, nameSchema, remarkSchema } from './identity.ts';

/** What a person may set of a trial: the question, the use it serves and where it is tested. */
export const trialDraftSchema = z.object({
  name: nameSchema,
  question: z.string().trim().max(300, 'Use at most 300 characters').default(''),
  use: remarkSchema,
  place: z.string().trim().max(300, 'Use at most 300 characters').default(''),
});
export type TrialDraft = z.infer<typeof trialDraftSchema>;

export const trialPatchSchema = z.object({
  name: nameSchema.optional(),
  question: z.string().trim().max(300, 'Use at most 300 characters').optional(),
  use: z.string().trim().max(4000).optional(),
  place: z.string().trim().max(300).optional(),
});
export type TrialPatch = z.infer<typeof trialPatchSchema>;

/** The winner expected before anyone listened. `candidateId` is absent while the seal holds. */
export const expectationDraftSchema = z.object({
  candidateId: idSchema,
  reason: remarkSchema,
});
export type ExpectationDraft = z.infer<typeof expectationDraftSchema>;

/** What may be said of an expectation: that it is sealed, or, once the verdict was opened, what it was. */
export interface Expectation {
  sealedAtMs: number;
  revealed: { candidateId: string; reason: string } | null;
}

/** How far each stage of a trial is; shown in the navigation and in the list of trials. */
export interface TrialProgress {
  criteria: number;
  candidates: number;
  planned: number;
  done: number;
  recordings: number;
  measured: number;
  measuring: number;
  listeners: number;
  verdictOpened: boolean;
}

export interface Trial extends TrialDraft {
  id: string;
  sample: boolean;
  createdAtMs: number;
  binnedAtMs: number | null;
  expectation: Expectation | null;
  verdictOpenedAtMs: number | null;
  progress: TrialProgress;
}
