import { parseArgs } from 'node:util';
import { z } from 'zod';

/** What the command line asks for. */
export interface MeasureArguments {
  files: string[];
  json: boolean;
  targetLufs: number;
  dualMono: boolean;
  roomTone: [number, number] | null;
  reference: { file: string; channel: number } | null;
}

/** Thrown for what cannot be understood; the message says which option and what to write instead. */
export class UsageError extends Error {}

export const USAGE = `measure [options] FILE...
  --json                     JSON array on standard output, one element per file
  --target LUFS              loudness to which practical figures are brought (default -23)
  --reference FILE[:CHANNEL] compare every channel with this one (channels count from 0)
  --room-tone START-END      seconds to take as room tone, instead of the detected pauses
  --dual-mono                a mono channel is judged as played from two loudspeakers
Exit status: 0 all measured, 1 some were not, 2 not understood.`;

const target = z.coerce.number({ error: 'is not a number' }).min(-70, 'must be -70 or more').max(0, 'must be 0 or less');
const roomTone = z
  .string()
  .regex(/^\d+(\.\d+)?-\d+(\.\d+)?$/, 'must be two times in seconds, such as 1.5-3')
  .transform((text) => text.split('-').map(Number) as [number, number])
  .refine(([start, end]) => end > start, 'must end after it starts');

function checked<Value>(option: string, schema: z.ZodType<Value>, text: string): Value {
  const result = schema.safeParse(text);
  if (!result.success) throw new UsageError(`--${option} ${text}: ${result.error.issues[0]?.message}`);
  return result.data;
}

/** A file and a channel after the last colon; a name may hold colons of its own. */
function referenceOf(text: string): { file: string; channel: number } {
  const [, file, channel] = /^(.*):(\d+)$/.exec(text) ?? [];
  return file ? { file, channel: Number(channel) } : { file: text, channel: 0 };
}

/** @throws UsageError */
export function readArguments(args: string[]): MeasureArguments {
  let parsed: ReturnType<typeof parse>;
  try {
    parsed = parse(args);
  } catch (error) {
    throw new UsageError(error instanceof Error ? error.message : String(error));
  }
  const { values, positionals } = parsed;
  if (positionals.length === 0) throw new UsageError('Name at least one file');
  return {
    files: positionals,
    json: values.json ?? false,
    targetLufs: values.target === undefined ? -23 : checked('target', target, values.target.trim() === '' ? 'nothing' : values.target),
    dualMono: values['dual-mono'] ?? false,
    roomTone: values['room-tone'] === undefined ? null : checked('room-tone', roomTone, values['room-tone']),
    reference: values.reference === undefined ? null : referenceOf(values.reference),
  };
}

/** A value that begins with a minus sign is a number, not an option. */
function joinNegative(args: readonly string[]): string[] {
  const out: string[] = [];
  for (const arg of args) {
    if (out.at(-1) === '--target' && /^-\d/.test(arg)) out[out.length - 1] = `--target=${arg}`;
    else out.push(arg);
  }
  return out;
}

const parse = (args: string[]) =>
  parseArgs({
    args: joinNegative(args),
    allowPositionals: true,
    options: {
      json: { type: 'boolean' },
      target: { type: 'string' },
      reference: { type: 'string' },
      'room-tone': { type: 'string' },
      'dual-mono': { type: 'boolean' },
    },
  });
