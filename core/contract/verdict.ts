import { z } from 'zod';
import type { VerdictNote } from '../decide/usableRecordings.ts';
import type { VerdictRow } from '../decide/verdict.ts';
import type { Criterion } from '../domain/criterion.ts';
import { FACTOR_KINDS } from '../domain/factor.ts';

/** How sure one is of the weights, where the doubt of a ranking is asked for. */
export const doubtQuerySchema = z.object({ weights: z.enum(['given', 'tenth', 'unknown'], { error: 'Weights are as given, within a tenth, or unknown' }).default('given') });

const termKindSchema = z.enum([...FACTOR_KINDS, 'listener']);
/** More pairs than this at once leave nothing to tell them from. */
const MOST_TOGETHER = 20;

/**
 * Pairs of terms of which is asked whether they work on each other.
 * @example "candidate*windscreen,station*distance"
 */
export const effectsQuerySchema = z.object({
  together: z
    .string()
    .default('')
    .transform((text) => (text === '' ? [] : text.split(',').map((pair) => pair.split('*'))))
    .pipe(
      z
        .array(z.tuple([termKindSchema, termKindSchema], { error: 'Ask about two factors together, as candidate*windscreen' }))
        .max(MOST_TOGETHER, `Ask about at most ${MOST_TOGETHER} pairs at once`),
    ),
});

/** The verdict as the page gets it; rows only once it was opened. */
export interface VerdictView {
  open: boolean;
  criteria: Criterion[];
  /** What of each candidate is missing, and which dealbreakers were not tested. */
  missing: { candidateId: string; name: string; criterionIds: string[]; untested: string[] }[];
  notes: VerdictNote[];
  /** Of slates that were done again, which passes count; null while nobody said. */
  passes: 'last' | 'all' | null;
  rows: VerdictRow[] | null;
}
