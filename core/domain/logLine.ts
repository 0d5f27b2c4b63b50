import { z } from 'zod';
import { idSchema, instantMsSchema } from './identity.ts';
import { controlSchema } from './plan.ts';
import { GAIN_STAGES, TAKE_FLAGS, type Take } from './take.ts';

const base = { id: idSchema, takeId: idSchema, atMs: instantMsSchema };

/**
 * One line of the field log. Lines are only ever added; a take's state is the sum of its lines. The id
 * is made where the line is written, so that a line sent twice counts once.
 */
export const logLineSchema = z.discriminatedUnion('kind', [
  z.object({ ...base, kind: z.literal('start'), controls: z.array(controlSchema).max(40).default([]) }),
  z.object({ ...base, kind: z.literal('stop') }),
  z.object({ ...base, kind: z.literal('flag'), flag: z.enum(TAKE_FLAGS) }),
  z.object({ ...base, kind: z.literal('unflag'), flag: z.enum(TAKE_FLAGS) }),
  z.object({ ...base, kind: z.literal('note'), text: z.string().trim().max(2000, 'Use at most 2,000 characters') }),
  z.object({
    ...base,
    kind: z.literal('gain'),
    chainId: idSchema,
    stage: z.enum(GAIN_STAGES),
    gainDb: z.number().min(-60, 'Gain is -60 to 90 dB').max(90, 'Gain is -60 to 90 dB').nullable(),
  }),
  z.object({
    ...base,
    kind: z.literal('conditions'),
    windMs: z.number().min(0, 'Wind is 0 to 60 m/s').max(60, 'Wind is 0 to 60 m/s').nullable(),
    noiseDba: z.number().min(0, 'Noise is 0 to 150 dB A').max(150, 'Noise is 0 to 150 dB A').nullable(),
  }),
  z.object({ ...base, kind: z.literal('redo'), newTakeId: idSchema }),
  z.object({ ...base, kind: z.literal('skip') }),
  z.object({ ...base, kind: z.literal('unskip') }),
]);
export type LogLine = z.infer<typeof logLineSchema>;

/**
 * The take after one more line. `redo` leaves the old take as it is: the new pass is made by
 * {@link redoneTake}.
 */
export function applyLogLine(take: Take, line: LogLine): Take {
  switch (line.kind) {
    case 'start':
      return { ...take, status: 'rolling', startedAtMs: line.atMs, stoppedAtMs: null, controls: line.controls };
    case 'stop':
      return { ...take, status: 'done', startedAtMs: take.startedAtMs ?? line.atMs, stoppedAtMs: line.atMs };
    case 'flag':
      // A line that is applied twice, here and on the server, must not flag twice.
      if (take.flags.some((mark) => mark.flag === line.flag && mark.atMs === line.atMs)) return take;
      return { ...take, flags: [...take.flags, { flag: line.flag, atMs: line.atMs }] };
    case 'unflag':
      return { ...take, flags: take.flags.filter((mark) => mark.flag !== line.flag) };
    case 'note':
      return { ...take, note: line.text };
    case 'gain': {
      const { [line.stage]: _previous, ...kept } = take.gains[line.chainId] ?? {};
      const gains = line.gainDb === null ? kept : { ...kept, [line.stage]: line.gainDb };
      return { ...take, gains: { ...take.gains, [line.chainId]: gains } };
    }
    case 'conditions':
      return { ...take, windMs: line.windMs, noiseDba: line.noiseDba };
    case 'redo':
      return take;
    case 'skip':
      return { ...take, status: 'skipped' };
    case 'unskip':
      return { ...take, status: 'planned' };
  }
}

/** The next pass of a slate: same setup, nothing logged yet, gains and conditions carried over. */
export function redoneTake(take: Take, line: Extract<LogLine, { kind: 'redo' }>, highestPass: number): Take {
  return {
    ...take,
    id: line.newTakeId,
    pass: highestPass + 1,
    status: 'planned',
    startedAtMs: null,
    stoppedAtMs: null,
    flags: [],
    note: '',
    controls: [],
  };
}

/** All takes after a list of lines, in the order of the lines. Lines for unknown takes change nothing. */
export function applyLog(takes: readonly Take[], lines: readonly LogLine[]): Take[] {
  const byId = new Map(takes.map((take) => [take.id, take]));
  for (const line of lines) {
    const take = byId.get(line.takeId);
    if (!take) continue;
    if (line.kind === 'redo') {
      if (byId.has(line.newTakeId)) continue;
      const passes = [...byId.values()].filter((other) => other.slate === take.slate).map((other) => other.pass);
      byId.set(line.newTakeId, redoneTake(take, line, Math.max(...passes)));
    } else {
      byId.set(take.id, applyLogLine(take, line));
    }
  }
  return [...byId.values()].sort((a, b) => a.position - b.position || a.pass - b.pass);
}
