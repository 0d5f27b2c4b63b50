import { z } from 'zod';
import { idSchema } from './identity.ts';
import { EVENT_KINDS } from './measureId.ts';

const momentS = z.number({ error: 'Say when, in seconds from the start of the recording' }).min(0, 'An event starts at 0 s or later').max(86_400);

/** An event as somebody marks it: what it is, from when to when. */
export const markedEventSchema = z
  .object({ kind: z.enum(EVENT_KINDS, { error: 'Choose what kind of event it is' }), startS: momentS, endS: momentS })
  .refine(({ startS, endS }) => endS > startS, { error: 'An event ends after it starts', path: ['endS'] });
export type MarkedEvent = z.infer<typeof markedEventSchema>;

/**
 * What somebody heard where the detectors told something else, or nothing. A person's ears outrank a detector.
 * Without `now` what was found is no event; without `was` it is one that was not found.
 */
export const correctionSchema = z
  .object({ id: idSchema, was: markedEventSchema.nullable(), now: markedEventSchema.nullable() })
  .refine(({ was, now }) => was !== null || now !== null, { error: 'Say which event is meant', path: ['now'] });
export type Correction = z.infer<typeof correctionSchema>;

/** More than anybody would correct in one recording. */
export const MOST_CORRECTIONS = 500;

/** A correction, and how it stood when the page that sends it read it; null when it is new. */
export const correctionChangeSchema = z.object({ now: markedEventSchema.nullable(), was: markedEventSchema.nullable(), seen: correctionSchema.nullable() });
export type CorrectionChange = z.infer<typeof correctionChangeSchema>;

/** Whether two say the same of the same event. */
export function sameCorrection(one: Omit<Correction, 'id'>, other: Omit<Correction, 'id'>): boolean {
  return sameEvent(one.was, other.was) && sameEvent(one.now, other.now);
}

/** Whether two marks are one. */
export function sameEvent(one: MarkedEvent | null, other: MarkedEvent | null): boolean {
  if (one === null || other === null) return one === other;
  return one.kind === other.kind && one.startS === other.startS && one.endS === other.endS;
}
