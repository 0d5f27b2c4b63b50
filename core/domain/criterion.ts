import { z } from 'zod';
import { factorKindSchema } from './factor.ts';
import { idSchema, nameSchema, OWNED, remarkSchema } from './identity.ts';
import { measureIdSchema } from './measureId.ts';

export const criterionKindSchema = z.enum(['measured', 'listened', 'inspected']);

/** Rules a candidate out when its value is beyond the limit, whatever else it scores. */
export const dealbreakerSchema = z.object({
  side: z.enum(['below', 'above']),
  limit: z.number().finite(),
});

/**
 * Something that is judged. `best` and `worst` are in the unit of the measure, or points 0 to 10 for
 * listened and inspected criteria; which of the two is the larger says which way is better.
 */
export const criterionDraftSchema = z
  .object({
    name: nameSchema,
    kind: criterionKindSchema,
    measureId: measureIdSchema.nullable().default(null),
    weight: z.number().min(0, 'A weight is 0 or more').max(100, 'A weight is at most 100'),
    best: z.number().finite(),
    worst: z.number().finite(),
    /** Where the best lies in the middle: the value on its other side that counts as 0; null where more is always better, or less. */
    otherWorst: z.number().finite().nullable().default(null),
    /** How the values of a candidate become one: their mean, the middle one, or the worst. */
    aggregation: z.enum(['mean', 'median', 'worst']).default('mean'),
    /** Conditions that count, as level ids by factor kind; a kind that is not named counts at all its levels. */
    where: z.partialRecord(factorKindSchema, z.array(z.string().max(60)).max(60)).default({}),
    /** What 0 and 10 points mean to a listener. */
    worstWords: z.string().trim().max(80, 'Use at most 80 characters').default(''),
    bestWords: z.string().trim().max(80, 'Use at most 80 characters').default(''),
    dealbreaker: dealbreakerSchema.nullable().default(null),
    remark: remarkSchema,
    position: z.number().int().nonnegative().default(0),
  })
  .superRefine((criterion, context) => {
    if (criterion.best === criterion.worst) {
      context.addIssue({ code: 'custom', path: ['worst'], message: 'Best and worst must differ, or nothing can be told apart' });
    }
    if (criterion.otherWorst !== null && (criterion.otherWorst - criterion.best) * (criterion.worst - criterion.best) >= 0) {
      context.addIssue({ code: 'custom', path: ['otherWorst'], message: 'The other worst value must lie on the other side of the best' });
    }
    if (criterion.kind === 'measured' && criterion.measureId === null) {
      context.addIssue({ code: 'custom', path: ['measureId'], message: 'Choose the measure that judges this' });
    }
    if (criterion.kind !== 'measured' && [criterion.best, criterion.worst].some((value) => value < 0 || value > 10)) {
      context.addIssue({ code: 'custom', path: ['best'], message: 'Points run from 0 to 10; keep best and worst in that range' });
    }
  });
export type CriterionDraft = z.infer<typeof criterionDraftSchema>;

export const criterionSchema = z.object({ ...criterionDraftSchema.shape, ...OWNED });
/** As it is stored and answered. */
export type StoredCriterion = z.infer<typeof criterionSchema>;
export type Criterion = CriterionDraft & { id: string; trialId: string };

/** Fewest and most criteria that make a usable judgement; outside it the Question stage says so. */
export const CRITERIA_FEWEST = 3;
export const CRITERIA_MOST = 8;

/**
 * Share of the whole that each weight is, 0 to 1, in the order given. All zero when no weight is set.
 * @example weightShares([3, 1]) // [0.75, 0.25]
 */
export function weightShares(weights: readonly number[]): number[] {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  return weights.map((weight) => (total > 0 ? weight / total : 0));
}

/** A mark given by hand to one candidate on one inspected criterion, 0 to 10. */
export const markDraftSchema = z.object({
  chainId: idSchema,
  criterionId: idSchema,
  points: z.number().min(0, 'Points run from 0 to 10').max(10, 'Points run from 0 to 10').nullable(),
  remark: remarkSchema,
});
export type MarkDraft = z.infer<typeof markDraftSchema>;
export const markSchema = markDraftSchema.extend({ trialId: idSchema });
export type Mark = z.infer<typeof markSchema>;
