import { z } from 'zod';
import { factorSchema } from './factor.ts';
import { nameSchema } from './identity.ts';

/** What is held constant while the factors vary, and its value. */
export const controlSchema = z.object({
  name: nameSchema,
  value: z.string().trim().max(120, 'Use at most 120 characters'),
});
export type Control = z.infer<typeof controlSchema>;

const seconds = z.number().min(0, 'A time is 0 s or more').max(7200, 'A change takes at most 7,200 s');

/** How long it takes to change each thing, in seconds. */
export const changeTimesSchema = z.object({
  station: seconds,
  candidate: seconds,
  windscreen: seconds,
  distance: seconds,
  script: seconds,
});
export type ChangeTimes = z.infer<typeof changeTimesSchema>;
export const DEFAULT_CHANGE_TIMES: ChangeTimes = { station: 900, candidate: 300, windscreen: 90, distance: 60, script: 15 };

export const planDraftSchema = z.object({
  factors: z.array(factorSchema).max(12),
  /** Setup keys of the cells that are left out. */
  leftOut: z.array(z.string().max(400)).max(20_000).default([]),
  /** Candidates of equal condition share one take: same words, same moment. */
  together: z.boolean().default(true),
  controls: z.array(controlSchema).max(40).default([]),
  changeTimesS: changeTimesSchema.default(DEFAULT_CHANGE_TIMES),
  /** Slating, waiting and checking around every take, in seconds. */
  overheadS: z.number().min(0, 'Overhead is 0 to 600 s').max(600, 'Overhead is 0 to 600 s').default(25),
});
export type PlanDraft = z.infer<typeof planDraftSchema>;

export interface Plan extends PlanDraft {
  trialId: string;
  committedAtMs: number | null;
}
