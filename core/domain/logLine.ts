import { z } from 'zod';
import { WITHIN_KINDS } from './factor.ts';
import { idSchema, instantMsSchema } from './identity.ts';
import { controlSchema } from './plan.ts';
import { isSwitched } from './switches.ts';
import { firstSetups, GAIN_STAGES, type Gains, gainsSchema, incidentSchema, TAKE_FLAGS, type Take, type TakeSetup, triedSchema } from './take.ts';
import { trackPointSchema, walkPressSchema } from './walk.ts';

const levelKindSchema = z.enum(WITHIN_KINDS);
const levelIdSchema = z.string().min(1).max(60);
const base = { id: idSchema, takeId: idSchema, atMs: instantMsSchema };

/**
 * One line of the field log. Lines are only ever added; a take's state is the sum of its lines. The id
 * is made where the line is written, so that a line sent twice counts once.
 */
export const logLineSchema = z.discriminatedUnion('kind', [
  z.object({
    ...base,
    kind: z.literal('start'),
    controls: z.array(controlSchema).max(40).default([]),
    /** Gains by setup as they are set in Kit; what was read on the day stays. */
    gains: z.record(idSchema, gainsSchema).default({}),
  }),
  z.object({ ...base, kind: z.literal('stop') }),
  z.object({ ...base, kind: z.literal('flag'), flag: z.enum(TAKE_FLAGS), setupIds: z.array(idSchema).max(64).default([]) }),
  /** Takes one mark back, or where none is named all marks of that flag. */
  z.object({ ...base, kind: z.literal('unflag'), flag: z.enum(TAKE_FLAGS), markId: idSchema.optional() }),
  /** Says of a mark which setups it was heard on. */
  z.object({ ...base, kind: z.literal('mark'), markId: idSchema, setupIds: z.array(idSchema).max(64) }),
  /** Something odd was heard. Its id is that of the line, or the one it had before it was taken back. */
  z.object({ ...base, kind: z.literal('incident'), incidentId: idSchema.optional(), ...incidentSchema.pick({ heard: true, wasOn: true, setupIds: true }).shape }),
  /** An incident was tried again in this take, wherever it was first heard: on which setups it came, and on which it stayed away. */
  z.object({ ...base, kind: z.literal('tried'), ...triedSchema.pick({ incidentId: true, cameSetupIds: true, stayedSetupIds: true }).shape }),
  /** Takes an incident back. */
  z.object({ ...base, kind: z.literal('untold'), incidentId: idSchema }),
  z.object({ ...base, kind: z.literal('note'), text: z.string().trim().max(2000, 'Use at most 2,000 characters') }),
  z.object({
    ...base,
    kind: z.literal('gain'),
    /** One of the two says whose gain it is; a line of before setups were named has the chain. */
    setupId: idSchema.optional(),
    chainId: idSchema.optional(),
    stage: z.enum(GAIN_STAGES),
    gainDb: z.number().min(-60, 'Gain is -60 to 90 dB').max(90, 'Gain is -60 to 90 dB').nullable(),
  }),
  /** What a meter showed at a stage; null is not seen. */
  z.object({
    ...base,
    kind: z.literal('meter'),
    setupId: idSchema,
    stage: z.enum(GAIN_STAGES),
    averageDbfs: z.number().min(-120, 'A meter shows -120 to 24 dB').max(24, 'A meter shows -120 to 24 dB').nullable(),
    peakDbfs: z.number().min(-120, 'A meter shows -120 to 24 dB').max(24, 'A meter shows -120 to 24 dB').nullable(),
  }),
  z.object({
    ...base,
    kind: z.literal('conditions'),
    windMs: z.number().min(0, 'Wind is 0 to 60 m/s').max(60, 'Wind is 0 to 60 m/s').nullable(),
    noiseDba: z.number().min(0, 'Noise is 0 to 150 dB A').max(150, 'Noise is 0 to 150 dB A').nullable(),
  }),
  /** Something was switched while the take ran: each setup that it concerns is followed by another one. */
  z.object({
    ...base,
    kind: z.literal('switch'),
    changed: levelKindSchema,
    setups: z
      .array(z.object({ id: idSchema, fromId: idSchema, before: levelIdSchema.nullable(), after: levelIdSchema }))
      .min(1)
      .max(64),
  }),
  /** Takes a switch back: what followed from it is one with what was before. */
  z.object({ ...base, kind: z.literal('unswitch'), setupIds: z.array(idSchema).min(1).max(64) }),
  /** Something was pressed on a range walk. Its id is that of the line. */
  z.object({ ...base, kind: z.literal('walk'), press: walkPressSchema }),
  /** Takes a press of a walk back. */
  z.object({ ...base, kind: z.literal('unwalk'), entryId: idSchema }),
  /** Where the talker was, as the phone knew it or a file of points had it. Kept as a line; the take does not carry it. */
  z.object({ ...base, kind: z.literal('positions'), points: z.array(trackPointSchema).min(1).max(1000) }),
  /** All that was said of where the talker was is taken back: a wrong file, or another phone. */
  z.object({ ...base, kind: z.literal('unpositions') }),
  /** The take never began: the start was an accident. What was noted meanwhile stays. */
  z.object({ ...base, kind: z.literal('unstart') }),
  z.object({ ...base, kind: z.literal('redo'), newTakeId: idSchema }),
  /** What is left is done in this order, in the places that these takes have now. */
  z.object({ ...base, kind: z.literal('order'), takeIds: z.array(idSchema).min(2).max(5000) }),
  z.object({ ...base, kind: z.literal('skip') }),
  z.object({ ...base, kind: z.literal('unskip') }),
]);
export type LogLine = z.infer<typeof logLineSchema>;

/**
 * The take after one more line. `redo` leaves the old take as it is: the new pass is made by
 * {@link redoneTake}; `order` is of several takes: {@link applyLog}.
 */
export function applyLogLine(take: Take, line: LogLine): Take {
  switch (line.kind) {
    case 'start':
      return { ...take, status: 'rolling', startedAtMs: line.atMs, stoppedAtMs: null, controls: line.controls, gains: gainsFrom(take, line.gains) };
    case 'stop':
      return { ...take, status: 'done', startedAtMs: take.startedAtMs ?? line.atMs, stoppedAtMs: line.atMs };
    case 'flag':
      // A line that is applied twice, here and on the server, must not flag twice.
      if (take.flags.some((mark) => mark.id === line.id)) return take;
      return { ...take, flags: [...take.flags, { id: line.id, flag: line.flag, atMs: line.atMs, setupIds: line.setupIds }] };
    case 'unflag':
      return { ...take, flags: take.flags.filter((mark) => mark.flag !== line.flag || (line.markId !== undefined && mark.id !== line.markId)) };
    case 'mark':
      return { ...take, flags: take.flags.map((mark) => (mark.id === line.markId ? { ...mark, setupIds: line.setupIds } : mark)) };
    case 'incident': {
      const { incidentId: id = line.id, heard, wasOn, setupIds, atMs } = line;
      if (take.incidents.some((known) => known.id === id)) return take;
      return { ...take, incidents: [...take.incidents, { id, heard, wasOn, setupIds, atMs }] };
    }
    case 'tried': {
      const { id, incidentId, cameSetupIds, stayedSetupIds, atMs } = line;
      // What was said last of an incident in a take counts; an older line that comes late changes nothing.
      if (take.tried.some((known) => known.incidentId === incidentId && known.atMs > atMs)) return take;
      const others = take.tried.filter((known) => known.incidentId !== incidentId);
      const nothing = cameSetupIds.length === 0 && stayedSetupIds.length === 0;
      return { ...take, tried: nothing ? others : [...others, { id, incidentId, cameSetupIds, stayedSetupIds, atMs }] };
    }
    case 'untold':
      return { ...take, incidents: take.incidents.filter(({ id }) => id !== line.incidentId) };
    case 'note':
      return { ...take, note: line.text };
    case 'gain': {
      const setupId = line.setupId ?? take.setups.find((setup) => setup.candidateId === line.chainId)?.id;
      if (setupId === undefined) return take;
      const { [line.stage]: _previous, ...kept } = take.gains[setupId] ?? {};
      const gains = line.gainDb === null ? kept : { ...kept, [line.stage]: line.gainDb };
      return { ...take, gains: { ...take.gains, [setupId]: gains } };
    }
    case 'meter': {
      const { setupId, stage, averageDbfs, peakDbfs } = line;
      return { ...take, meters: { ...take.meters, [setupId]: { ...take.meters[setupId], [stage]: { averageDbfs, peakDbfs } } } };
    }
    case 'conditions':
      return { ...take, windMs: line.windMs, noiseDba: line.noiseDba };
    case 'switch': {
      const setups = switched(take, line);
      // Nobody turned a gain when a switch was thrown: what stood before stands.
      const carried = setups.filter(({ id, fromId }) => fromId !== undefined && take.gains[fromId] && !take.gains[id]);
      return { ...take, setups, gains: { ...take.gains, ...Object.fromEntries(carried.map(({ id, fromId }) => [id, take.gains[fromId as string] ?? {}])) } };
    }
    case 'unswitch': {
      // Only what nothing followed can be taken back: the last switch first.
      const gone = new Set(
        line.setupIds.filter((id) => take.setups.some((setup) => setup.id === id && setup.fromId !== undefined) && !take.setups.some(({ fromId }) => fromId === id)),
      );
      return gone.size === 0 ? take : { ...take, setups: take.setups.filter(({ id }) => !gone.has(id)) };
    }
    case 'walk':
      if (take.walk.some(({ id }) => id === line.id)) return take;
      return { ...take, walk: [...take.walk, { ...line.press, id: line.id, atMs: line.atMs }].sort((a, b) => a.atMs - b.atMs) };
    case 'unwalk':
      return { ...take, walk: take.walk.filter(({ id }) => id !== line.entryId) };
    case 'unstart':
      // A line that comes late does not undo a take that was finished meanwhile.
      return take.status === 'rolling' ? { ...take, status: 'planned', startedAtMs: null, stoppedAtMs: null } : take;
    case 'positions':
    case 'unpositions':
    case 'order':
    case 'redo':
      return take;
    case 'skip':
      return { ...take, status: 'skipped' };
    case 'unskip':
      return { ...take, status: 'planned' };
  }
}

/** The setups of a take after a switch; a line that was applied already changes nothing. */
function switched(take: Take, { atMs, changed, setups: changes }: Extract<LogLine, { kind: 'switch' }>): Take['setups'] {
  const fresh = changes.filter(({ id, fromId }) => take.setups.some((setup) => setup.id === fromId) && !take.setups.some((setup) => setup.id === id || setup.fromId === fromId));
  if (fresh.length === 0) return take.setups;
  // What it was before is noted where nothing was known.
  const known = take.setups.map((setup) => {
    const before = fresh.find(({ fromId }) => fromId === setup.id)?.before;
    return before && setup.levels[changed] === undefined && take.condition[changed] === undefined ? { ...setup, levels: { ...setup.levels, [changed]: before } } : setup;
  });
  const next = fresh.flatMap(({ id, fromId, after }) => {
    const from = known.find((setup) => setup.id === fromId);
    return from ? [{ id, candidateId: from.candidateId, levels: { ...from.levels, [changed]: after }, fromId, sinceMs: atMs }] : [];
  });
  return [...known, ...next];
}

function gainsFrom(take: Take, kit: Record<string, Gains> = {}): Take['gains'] {
  const setups = take.setups.filter(({ id }) => kit[id] || take.gains[id]);
  return Object.fromEntries(setups.map(({ id }) => [id, { ...kit[id], ...take.gains[id] }]));
}

/** A setup as it was planned: what throwing a switch told of it left out. */
function unswitched(setup: TakeSetup): TakeSetup {
  return { ...setup, levels: Object.fromEntries(Object.entries(setup.levels).filter(([, levelId]) => !isSwitched(levelId))) };
}

/** The next pass of a slate: same setup, nothing logged yet, gains and conditions carried over. */
export function redoneTake(take: Take, line: Extract<LogLine, { kind: 'redo' }>, highestPass: number): Take {
  return {
    ...take,
    id: line.newTakeId,
    setups: firstSetups(take).map(unswitched),
    pass: highestPass + 1,
    status: 'planned',
    startedAtMs: null,
    stoppedAtMs: null,
    flags: [],
    incidents: [],
    tried: [],
    walk: [],
    meters: {},
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
    if (line.kind === 'order') {
      for (const [id, moved] of reordered(byId, line.takeIds)) byId.set(id, moved);
      continue;
    }
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

/** Planned takes in another order, in the places that they had; what was begun meanwhile stays where it is. */
function reordered(byId: ReadonlyMap<string, Take>, takeIds: readonly string[]): [string, Take][] {
  const moved = [...new Set(takeIds)].flatMap((id) => {
    const take = byId.get(id);
    return take?.status === 'planned' ? [take] : [];
  });
  const places = moved.map(({ position }) => position).sort((a, b) => a - b);
  return moved.map((take, index) => [take.id, { ...take, position: places[index] as number }]);
}
