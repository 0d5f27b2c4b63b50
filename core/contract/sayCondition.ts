import { z } from 'zod';
import { idSchema } from '../domain/identity.ts';
import { SAID_AFTERWARDS } from '../takes/sayCondition.ts';

/** Something said of takes that nobody had written down. */
export const sayConditionSchema = z.object({
  takeIds: z.array(idSchema).min(1, 'Choose a take').max(1000, 'At most 1,000 takes at once'),
  kind: z.enum(SAID_AFTERWARDS),
  levelId: z.string().min(1).max(60),
  /** Whose distance or windscreen; null is of all. */
  candidateId: idSchema.nullable(),
  /** Only where it is not known yet. */
  onlyUnknown: z.boolean().default(false),
});
export type SayCondition = z.input<typeof sayConditionSchema>;

/** Takes of which it holds now. */
export interface SaidOfTakes {
  takeIds: string[];
}
