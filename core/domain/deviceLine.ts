import { z } from 'zod';
import { DEVICE_KINDS, deviceChannelSchema, MOST_CHANNELS } from './device.ts';

/** By the device's clock: milliseconds since 1970, or a date and time of ISO 8601. */
const instant = z.union([z.number().nonnegative().max(9e15), z.iso.datetime({ offset: true }).transform((text) => Date.parse(text))]);

/** What a device says first: what it is and what it tells. */
export const helloLineSchema = z.object({
  hello: z.literal(1, { error: 'The first line says "hello":1, the number of this protocol' }),
  name: z.string().trim().max(120).default(''),
  kind: z.enum(DEVICE_KINDS).default('other'),
  /** Changes when the device counts its lines from 1 again. */
  session: z.string().max(60).default(''),
  /** Its clock at this moment, so that what it kept while nobody listened is put to the right time. */
  now: instant.optional(),
  channels: z.array(deviceChannelSchema).min(1, 'A device tells at least one channel').max(MOST_CHANNELS, `A device has at most ${MOST_CHANNELS} channels`),
});
export type HelloLine = z.infer<typeof helloLineSchema>;

/** Values of some channels at one moment. */
export const readingLineSchema = z.object({
  /** Counts up within a session; a line with a number is acknowledged once it is on the disk, and counts once. */
  n: z.number().int().positive().optional(),
  at: instant.optional(),
  values: z.record(z.string().max(40), z.number()).refine((values) => Object.keys(values).length <= MOST_CHANNELS, `At most ${MOST_CHANNELS} values`),
  health: z.string().max(200).optional(),
});
export type ReadingLine = z.infer<typeof readingLineSchema>;

export type DeviceLine = { is: 'hello'; line: HelloLine } | { is: 'reading'; line: ReadingLine } | { is: 'wrong'; why: string };

/** A line of a device, already taken from its JSON; says why where it is none. */
export function deviceLine(value: unknown): DeviceLine {
  if (typeof value !== 'object' || value === null) return { is: 'wrong', why: 'a line that is no object' };
  if ('hello' in value) {
    const result = helloLineSchema.safeParse(value);
    return result.success ? { is: 'hello', line: result.data } : { is: 'wrong', why: `a hello that cannot be understood: ${reason(result.error)}` };
  }
  const result = readingLineSchema.safeParse(value);
  return result.success ? { is: 'reading', line: result.data } : { is: 'wrong', why: `a reading that cannot be understood: ${reason(result.error)}` };
}

/** The same from text. @example readDeviceLine('{"values":{"1a":-62}}') */
export function readDeviceLine(text: string): DeviceLine {
  try {
    return deviceLine(JSON.parse(text));
  } catch (error) {
    if (error instanceof SyntaxError) return { is: 'wrong', why: 'a line that is no JSON' };
    throw error;
  }
}

function reason(error: z.ZodError): string {
  const [issue] = error.issues;
  return `${issue?.path.join('.') || 'the line'}: ${issue?.message ?? 'unknown'}`;
}
