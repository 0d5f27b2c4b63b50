import { z } from 'zod';
import { CONDITION_KINDS, type Condition, type SetupLevels, setupLevelsSchema, sharedConditionSchema, type WITHIN_KINDS } from './factor.ts';
import { idSchema, instantMsSchema, remarkSchema } from './identity.ts';
import { controlSchema } from './plan.ts';
import { walkEntrySchema } from './walk.ts';

export const TAKE_FLAGS = ['wind', 'traffic', 'break-up', 'handling', 'spoiled'] as const;
export type TakeFlag = (typeof TAKE_FLAGS)[number];

/** Flags that are counted: each press is one more, with its moment. The others are on or off. */
export const COUNTED_FLAGS: readonly TakeFlag[] = ['break-up'];

export const takeStatusSchema = z.enum(['planned', 'rolling', 'done', 'skipped']);

/** Something that was heard while a take ran: when, and on which of its setups; on none in particular where the list is empty. */
export const flagMarkSchema = z.object({
  id: idSchema,
  flag: z.enum(TAKE_FLAGS),
  atMs: instantMsSchema,
  setupIds: z.array(idSchema).max(64).default([]),
});

/** Something odd that was heard in a take: what, on which of its setups, and what was on. */
export const incidentSchema = z.object({
  id: idSchema,
  heard: z.string().trim().min(1, 'Say what was heard').max(200, 'Use at most 200 characters'),
  wasOn: z.string().trim().max(200, 'Use at most 200 characters').default(''),
  setupIds: z.array(idSchema).max(64).default([]),
  atMs: instantMsSchema,
});
export type Incident = z.infer<typeof incidentSchema>;

/** An incident that was tried again in a take: on which of its setups it came, and on which it stayed away. */
export const triedSchema = z.object({
  id: idSchema,
  incidentId: idSchema,
  cameSetupIds: z.array(idSchema).max(64),
  stayedSetupIds: z.array(idSchema).max(64),
  atMs: instantMsSchema,
});
export type Tried = z.infer<typeof triedSchema>;

/** Stages of gain that a chain may have, in signal order. */
export const GAIN_STAGES = ['transmitter', 'receiver', 'recorder'] as const;
export const gainsSchema = z.partialRecord(z.enum(GAIN_STAGES), z.number());
export type Gains = z.infer<typeof gainsSchema>;

/** What a meter showed at a stage, in dB under full scale. */
export const meterSeenSchema = z.object({ averageDbfs: z.number().nullable(), peakDbfs: z.number().nullable() });
export type MeterSeen = z.infer<typeof meterSeenSchema>;
export const metersSchema = z.partialRecord(z.enum(GAIN_STAGES), meterSeenSchema);

/**
 * One of the setups recorded in a take: a candidate, and its level on whatever differs within the take. One that follows from another, because
 * something was switched while the take ran, says which, and since when.
 */
export const takeSetupSchema = z.object({
  id: idSchema,
  candidateId: idSchema,
  levels: setupLevelsSchema.default({}),
  fromId: idSchema.exactOptional(),
  sinceMs: instantMsSchema.exactOptional(),
});
export type TakeSetup = z.infer<typeof takeSetupSchema>;

/** One performance, slated once; it covers one setup, or several recorded together. */
export const takeSchema = z.object({
  id: idSchema,
  trialId: idSchema,
  slate: z.number().int().positive(),
  /** 1 for the first performance of a slate, then 2, 3... for each time it was done again. */
  pass: z.number().int().positive(),
  position: z.number().int().nonnegative(),
  /** What all of its setups share. */
  condition: sharedConditionSchema,
  setups: z.array(takeSetupSchema).min(1).max(64),
  status: takeStatusSchema,
  startedAtMs: instantMsSchema.nullable(),
  stoppedAtMs: instantMsSchema.nullable(),
  flags: z.array(flagMarkSchema),
  incidents: z.array(incidentSchema).default([]),
  tried: z.array(triedSchema).default([]),
  /** What was pressed on a range walk, in the order of its time. */
  walk: z.array(walkEntrySchema).default([]),
  note: remarkSchema,
  /** Gains by setup. */
  gains: z.record(idSchema, gainsSchema),
  /** What the meters showed, by setup. */
  meters: z.record(idSchema, metersSchema).default({}),
  windMs: z.number().nullable(),
  noiseDba: z.number().nullable(),
  /** The plan's controls as they stood when the take was started. */
  controls: z.array(controlSchema),
  binnedAtMs: instantMsSchema.nullable(),
});
export type Take = z.infer<typeof takeSchema>;

/**
 * How a take is called, on the slate and in file names.
 * @example slateLabel({ slate: 7, pass: 2 }) // "07/2"
 */
export function slateLabel(take: Pick<Take, 'slate' | 'pass'>): string {
  const number = String(take.slate).padStart(2, '0');
  return take.pass > 1 ? `${number}/${take.pass}` : number;
}

/** A take that was flagged spoiled takes no part in any judgement. */
export function isSpoiled(take: Pick<Take, 'flags'>): boolean {
  return take.flags.some((mark) => mark.flag === 'spoiled');
}

/** Setups with which the take began: what was switched later left out. */
export const firstSetups = <Setup extends { fromId?: string }>(take: { setups: readonly Setup[] }): Setup[] => take.setups.filter(({ fromId }) => fromId === undefined);

/** Setups as they stand now, or stood at the end: those that no other followed. */
export const lastSetups = (take: Pick<Take, 'setups'>): TakeSetup[] => take.setups.filter(({ id }) => !take.setups.some(({ fromId }) => fromId === id));

/** A setup with all that followed from it, in the order of their time. */
export function followedSetups(take: Pick<Take, 'setups'>, first: TakeSetup): TakeSetup[] {
  const next = take.setups.find(({ fromId }) => fromId === first.id);
  return next ? [first, ...followedSetups(take, next)] : [first];
}

/** When a setup held in its take; null where the take was not timed. */
export function setupSpanMs(take: Pick<Take, 'setups' | 'startedAtMs' | 'stoppedAtMs'>, setup: TakeSetup): [fromMs: number, toMs: number] | null {
  const fromMs = setup.sinceMs ?? take.startedAtMs;
  const toMs = take.setups.find(({ fromId }) => fromId === setup.id)?.sinceMs ?? take.stoppedAtMs;
  return fromMs === null || toMs === null ? null : [fromMs, toMs];
}

/** Candidates of a take, each once, in the order of its setups. */
export function candidatesOf(take: { setups: readonly Pick<TakeSetup, 'candidateId'>[] }): string[] {
  return [...new Set(take.setups.map((setup) => setup.candidateId))];
}

/** The whole condition of one setup: what the take shares, and its own levels. */
export function setupCondition(take: Pick<Take, 'condition'>, setup: { levels: SetupLevels }): Condition {
  return { ...take.condition, ...setup.levels } as Condition;
}

/** Kinds that differ within a take, besides the candidate. */
export function kindsWithin(take: { setups: readonly { levels: SetupLevels }[] }): (typeof WITHIN_KINDS)[number][] {
  return CONDITION_KINDS.filter((kind): kind is (typeof WITHIN_KINDS)[number] => take.setups.some((setup) => setup.levels[kind as keyof SetupLevels] !== undefined));
}

/** A take as a plan makes it: nothing noted, logged or read yet. */
export function untouchedTake(made: Pick<Take, 'id' | 'trialId' | 'slate' | 'position' | 'condition' | 'setups'>): Take {
  const read = { note: '', flags: [], incidents: [], tried: [], walk: [], gains: {}, meters: {}, windMs: null, noiseDba: null, controls: [] };
  return { ...made, pass: 1, status: 'planned', startedAtMs: null, stoppedAtMs: null, ...read, binnedAtMs: null };
}

/** Whether anything was noted, logged or read at a take; such a take is never dropped by a change of plan. */
export function isTouched(take: Take): boolean {
  return (
    take.status !== 'planned' ||
    take.startedAtMs !== null ||
    take.note !== '' ||
    take.flags.length > 0 ||
    take.incidents.length > 0 ||
    take.tried.length > 0 ||
    take.walk.length > 0 ||
    Object.keys(take.gains).length > 0 ||
    Object.keys(take.meters).length > 0 ||
    take.windMs !== null ||
    take.noiseDba !== null
  );
}
