import { z } from 'zod';
import { idSchema } from './identity.ts';

/** One thing that may be guilty, and how it is taken out of the chain for a test. */
export const suspectSchema = z.object({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'Name the suspect').max(120, 'Use at most 120 characters'),
  /** What is done to take it out, for example "its twin" or "battery instead of phantom power". */
  instead: z.string().trim().max(160, 'Use at most 160 characters').default(''),
});
export type Suspect = z.infer<typeof suspectSchema>;

/** A test that was made: these suspects were replaced, and the fault was heard or not. */
export const faultTestSchema = z.object({ replacedIds: z.array(z.string().max(60)).min(1).max(40), heard: z.boolean() });
export type FaultTest = z.infer<typeof faultTestSchema>;

/** A search for the one guilty link of a chain: each next test halves the suspects. */
export const faultSearchSchema = z.object({
  chainId: idSchema.nullable().default(null),
  fault: z.string().trim().max(300, 'Use at most 300 characters').default(''),
  /** In signal order. */
  suspects: z.array(suspectSchema).max(40, 'At most 40 suspects').default([]),
  tests: z.array(faultTestSchema).max(60).default([]),
  /** How often the fault comes when the guilty link is in: 1 is every time. A rare one needs repeats. */
  seenShare: z.number().min(0.05, 'At least 0.05').max(1, 'At most 1').default(1),
});
export type FaultSearch = z.infer<typeof faultSearchSchema>;
