import { z } from 'zod';
import { SIMULTANEOUS_KINDS } from './factor.ts';
import { idSchema, instantMsSchema, nameSchema, remarkSchema, versionSchema } from './identity.ts';
import { currencySchema } from './item.ts';

/** Who will work with the gear: how many, what for, and how roughly they treat it. */
export const roleSchema = z.object({
  id: idSchema,
  name: nameSchema,
  count: z.number().int().min(1, 'A role has 1 to 200 people').max(200, 'A role has 1 to 200 people'),
  needs: z.string().trim().max(300, 'Use at most 300 characters').default(''),
  robustness: z.enum(['gentle', 'normal', 'rough']).default('normal'),
  /** How much one person of it counts where gear is shared out, against one of another role. */
  importance: z.number().int().min(1, 'A role counts 1 to 9').max(9, 'A role counts 1 to 9').default(1),
  /** Units that stand by. */
  spares: z.number().int().min(0, 'Spares are 0 to 50').max(50, 'Spares are 0 to 50').default(0),
  /** The plug on the body may not pull out. */
  mustLock: z.boolean().default(false),
  /** Worn or hidden, not on a pole. */
  mustHide: z.boolean().default(false),
  /** What a candidate must at least reach for it, in the unit of the criterion. */
  least: z
    .array(z.object({ criterionId: idSchema, limit: z.number().finite() }))
    .max(12, 'At most 12 criteria a role')
    .default([]),
});
export type Role = z.infer<typeof roleSchema>;

export const budgetSchema = z.object({ amount: z.number().min(0, 'A budget is 0 or more').max(10_000_000, 'A budget is at most 10,000,000'), currency: currencySchema });

/** Hours that the gear is used in a year, by which a price holds its batteries. */
const hoursAYearSchema = z.number().min(1, 'Use in a year is 1 to 8,760 h').max(8760, 'Use in a year is 1 to 8,760 h').nullable();

/** How much more the first of two criteria matters than the second: 1/9 to 9. */
export const comparisonSchema = z.object({
  firstId: idSchema,
  secondId: idSchema,
  ratio: z
    .number()
    .min(1 / 9)
    .max(9),
});
export type CriterionComparison = z.infer<typeof comparisonSchema>;

/** Kinds by whose level a reference can be named: what can differ within one take. */
export const REFERENCE_KINDS = ['candidate', ...SIMULTANEOUS_KINDS] as const;
/** What all others of a take are measured against: the recording at this level. */
export const referenceSchema = z.object({ kind: z.enum(REFERENCE_KINDS), levelId: z.string().min(1).max(60) });
export type Reference = z.infer<typeof referenceSchema>;

/** What a person may set of a trial: the question, the use it serves and where it is tested. */
export const trialDraftSchema = z.object({
  name: nameSchema,
  question: z.string().trim().max(300, 'Use at most 300 characters').default(''),
  use: remarkSchema,
  place: z.string().trim().max(300, 'Use at most 300 characters').default(''),
  roles: z.array(roleSchema).max(20, 'At most 20 roles').default([]),
  budget: budgetSchema.nullable().default(null),
  hoursAYear: hoursAYearSchema.default(null),
  /** Comparisons of criteria two by two; weights follow from them when they are asked for. */
  comparisons: z.array(comparisonSchema).max(200).default([]),
  /** Whether slates are spoken on the recordings, so that what is judged begins after them; null while nobody said. */
  slatesSpoken: z.boolean().nullable().default(null),
  /** Of a slate that was done again, whether its last pass counts in the verdict or all; null while nobody said. */
  passes: z.enum(['last', 'all']).nullable().default(null),
  /** What the other recordings of a take are measured against; null where nothing is. */
  reference: referenceSchema.nullable().default(null),
});
export type TrialDraft = z.infer<typeof trialDraftSchema>;

export const trialPatchSchema = z.object({
  name: nameSchema.optional(),
  question: z.string().trim().max(300, 'Use at most 300 characters').optional(),
  use: z.string().trim().max(4000).optional(),
  place: z.string().trim().max(300).optional(),
  roles: z.array(roleSchema).max(20, 'At most 20 roles').optional(),
  budget: budgetSchema.nullable().optional(),
  hoursAYear: hoursAYearSchema.optional(),
  comparisons: z.array(comparisonSchema).max(200).optional(),
  slatesSpoken: z.boolean().nullable().optional(),
  passes: z.enum(['last', 'all']).nullable().optional(),
  reference: referenceSchema.nullable().optional(),
});
export type TrialPatch = z.infer<typeof trialPatchSchema>;

/** A trial as it is stored. */
export const trialSchema = trialDraftSchema.extend({
  id: idSchema,
  version: versionSchema,
  sample: z.boolean(),
  createdAtMs: instantMsSchema,
  binnedAtMs: instantMsSchema.nullable(),
  verdictOpenedAtMs: instantMsSchema.nullable(),
});

/** The winner that a person expects before anyone listened. */
export const expectationDraftSchema = z.object({
  person: nameSchema,
  candidateId: idSchema,
  reason: remarkSchema,
});
export type ExpectationDraft = z.infer<typeof expectationDraftSchema>;
export const expectationSchema = expectationDraftSchema.extend({ trialId: idSchema, sealedAtMs: instantMsSchema });

/** What may be said of an expectation: that it is sealed, or, once the verdict was opened, what it was. */
export interface Expectation {
  person: string;
  sealedAtMs: number;
  revealed: { candidateId: string; reason: string } | null;
}

/** How far each stage of a trial is; shown in the navigation and in the list of trials. */
export interface TrialProgress {
  criteria: number;
  candidates: number;
  frames: number;
  planned: number;
  done: number;
  recordings: number;
  measured: number;
  measuring: number;
  listeners: number;
  verdictOpened: boolean;
}

export interface Trial extends z.infer<typeof trialSchema> {
  expectations: Expectation[];
  progress: TrialProgress;
}
