import { z } from 'zod';
import { idSchema, nameSchema, OWNED, remarkSchema } from './identity.ts';
import { SPOT_IDS, SPOTS } from './spot.ts';

const optional = (low: number, high: number, why: string) => z.number().min(low, why).max(high, why).nullable().default(null);
const onBody = (why: string) => z.number().min(-1.2, why).max(1.2, why);

/** Where on a body, from the mouth: out, to the wearer's left, and up. */
export const bodyPlaceSchema = z.object({
  forwardM: onBody('A spot is at most 1.2 m in front of the mouth or behind it'),
  leftM: onBody('A spot is at most 1.2 m to a side of the mouth'),
  upM: onBody('A spot is at most 1.2 m over the mouth or under it'),
});

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
  /** The usual spot that it is, or was before it was moved; takes at one spot are learned from together. */
  spot: z.enum(SPOT_IDS).nullable().default(null),
  /** Where it was drawn on a body. */
  at: bodyPlaceSchema.nullable().default(null),
  /** The frame, and the microphone in it, that it was drawn as. */
  frameId: idSchema.nullable().default(null),
  boomId: idSchema.nullable().default(null),
  remark: remarkSchema,
});
export type PlacementDraft = z.infer<typeof placementDraftSchema>;

/** A placement of a trial, or of the library where it belongs to none. */
export const placementSchema = placementDraftSchema.extend({ ...OWNED, trialId: idSchema.nullable() });
export type Placement = z.infer<typeof placementSchema>;

/** Usual places, to start from; the numbers are of a grown talker who stands. */
export const USUAL_PLACEMENTS: readonly PlacementDraft[] = [
  { name: 'breastbone', on: 'body', belowChinM: 0.15, distanceM: 0.22, offAxisDeg: 80, aimDeg: 0, spot: 'breastbone high' },
  { name: 'collar', on: 'body', belowChinM: 0.06, distanceM: 0.14, offAxisDeg: 95, aimDeg: 0, spot: 'collar' },
  { name: 'hairline', on: 'body', belowChinM: -0.2, distanceM: 0.17, offAxisDeg: 75, aimDeg: 90, spot: 'hairline' },
  { name: 'boom from above', on: 'boom', distanceM: 0.6, offAxisDeg: 45, aimDeg: 0 },
].map((draft) => placementDraftSchema.parse(draft));

/** The spot that a placement stands for by its name, where it was not drawn: the longest name of a spot that it holds. */
export function spotByName(name: string): (typeof SPOT_IDS)[number] | null {
  const words = name.toLowerCase();
  const known: [string, (typeof SPOT_IDS)[number]][] = [
    ...SPOTS.map(({ id }): [string, (typeof SPOT_IDS)[number]] => [id, id]),
    ['breastbone', 'breastbone high'],
    ['ear', 'behind an ear'],
    ['neck', 'back of the neck'],
    ['brim', 'under a brim'],
    ['tie', 'tie knot'],
    ['button', 'behind a button'],
    ['headset', 'corner of the mouth'],
    ['chest', 'breastbone high'],
  ];
  const held = known.filter(([word]) => new RegExp(`(^|[^a-z])${word}([^a-z]|$)`).test(words)).sort((a, b) => b[0].length - a[0].length);
  return held[0]?.[1] ?? null;
}
