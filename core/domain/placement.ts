import { z } from 'zod';
import { idSchema, nameSchema, OWNED, remarkSchema } from './identity.ts';

const optional = (low: number, high: number, why: string) => z.number().min(low, why).max(high, why).nullable().default(null);

/** Where a microphone is, on a body or in a frame. Null is not known. */
export const placementDraftSchema = z.object({
  name: nameSchema,
  on: z.enum(['body', 'boom', 'stand', 'hidden']).default('body'),
  /** On a body: under the chin along it, 0 at the chin; elsewhere over the ground. */
  belowChinM: optional(-0.6, 1.5, 'Below the chin is -0.6 to 1.5 m'),
  heightM: optional(0, 10, 'A height is 0 to 10 m'),
  /** From the mouth, and how far off its axis. */
  distanceM: optional(0.01, 100, 'A distance is 0.01 to 100 m'),
  offAxisDeg: optional(0, 180, 'An angle is 0 to 180 degrees'),
  /** How far its own axis looks away from the mouth. */
  aimDeg: optional(0, 180, 'An angle is 0 to 180 degrees'),
  remark: remarkSchema,
});
export type PlacementDraft = z.infer<typeof placementDraftSchema>;

/** A placement of a trial, or of the library where it belongs to none. */
export const placementSchema = placementDraftSchema.extend({ ...OWNED, trialId: idSchema.nullable() });
export type Placement = z.infer<typeof placementSchema>;

/** Usual places, to start from; the numbers are of a grown talker who stands. */
export const USUAL_PLACEMENTS: readonly PlacementDraft[] = [
  { name: 'breastbone', on: 'body', belowChinM: 0.15, distanceM: 0.22, offAxisDeg: 80, aimDeg: 0 },
  { name: 'collar', on: 'body', belowChinM: 0.06, distanceM: 0.14, offAxisDeg: 95, aimDeg: 0 },
  { name: 'hairline', on: 'body', belowChinM: -0.2, distanceM: 0.17, offAxisDeg: 75, aimDeg: 90 },
  { name: 'boom from above', on: 'boom', distanceM: 0.6, offAxisDeg: 45, aimDeg: 0 },
].map((draft) => placementDraftSchema.parse(draft));
