import { z } from 'zod';
import { idSchema } from './identity.ts';

/** Values of a channel within one second: the least, the sum, the most, how many, and the last. */
export const thinnedSchema = z.tuple([z.number(), z.number(), z.number(), z.number().int().positive(), z.number()]);
export type Thinned = z.infer<typeof thinnedSchema>;

/** What a device told within one second, by channel. */
export const readingSecondSchema = z.object({
  deviceId: idSchema,
  trialId: idSchema,
  /** Whole seconds since 1970-01-01 UTC. */
  atS: z.number().int().nonnegative(),
  values: z.record(z.string(), thinnedSchema),
});
export type ReadingSecond = z.infer<typeof readingSecondSchema>;

/** One more value of a second. */
export function thinnedWith(known: Thinned | undefined, value: number): Thinned {
  if (!known) return [value, value, value, 1, value];
  const [least, sum, most, count] = known;
  return [Math.min(least, value), sum + value, Math.max(most, value), count + 1, value];
}

/** Two parts of one second as one; the second part is the later one. */
export function thinnedTogether(first: Thinned | undefined, second: Thinned): Thinned {
  if (!first) return second;
  return [Math.min(first[0], second[0]), first[1] + second[1], Math.max(first[2], second[2]), first[3] + second[3], second[4]];
}

/** Least, mean, most and last of a channel over a time. */
export interface ChannelSum {
  least: number;
  mean: number;
  most: number;
  last: number;
  count: number;
}

export function channelSum([least, sum, most, count, last]: Thinned): ChannelSum {
  return { least, mean: sum / count, most, last, count };
}
