import type { VerdictNote } from '../decide/usableRecordings.ts';
import type { VerdictRow } from '../decide/verdict.ts';
import type { Criterion } from '../domain/criterion.ts';

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
