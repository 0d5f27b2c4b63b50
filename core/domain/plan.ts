import { z } from 'zod';
import { EXTRA_KINDS, type FactorKind, factorKindSchema, factorSchema, levelSchema, SIMULTANEOUS_KINDS } from './factor.ts';
import { faultSearchSchema } from './faultSearch.ts';
import { idSchema, instantMsSchema, nameSchema, versionSchema } from './identity.ts';

/** What is held constant while the factors vary, and its value. */
export const controlSchema = z.object({
  name: nameSchema,
  value: z.string().trim().max(120, 'Use at most 120 characters'),
});
export type Control = z.infer<typeof controlSchema>;

const seconds = z.number().min(0, 'A time is 0 s or more').max(7200, 'A change takes at most 7,200 s');

/** How long it takes to change each thing, in seconds. */
export type ChangeTimes = Record<FactorKind, number>;
export const DEFAULT_CHANGE_TIMES: ChangeTimes = {
  station: 900,
  candidate: 300,
  talker: 240,
  rig: 240,
  placement: 180,
  noise: 120,
  speed: 120,
  windscreen: 90,
  distance: 60,
  orientation: 20,
  processing: 20,
  effort: 15,
  other: 60,
  script: 15,
};
export const changeTimesSchema = z.object({
  station: seconds,
  candidate: seconds,
  windscreen: seconds,
  distance: seconds,
  script: seconds,
  ...(Object.fromEntries(EXTRA_KINDS.map((kind) => [kind, seconds.default(DEFAULT_CHANGE_TIMES[kind])])) as Record<(typeof EXTRA_KINDS)[number], z.ZodDefault<typeof seconds>>),
});

/** A change that costs something else in one direction: fur goes on slower than it comes off. */
export const changeExceptionSchema = z.object({ kind: factorKindSchema, fromId: z.string().max(60), toId: z.string().max(60), seconds });
export type ChangeException = z.infer<typeof changeExceptionSchema>;

/** What cannot occur: none of the levels of one factor together with any of those of the other. */
export const exclusionRuleSchema = z.object({
  id: idSchema,
  kind: factorKindSchema,
  levelIds: z.array(z.string().max(60)).min(1, 'Choose at least one level').max(60),
  withKind: factorKindSchema,
  withLevelIds: z.array(z.string().max(60)).min(1, 'Choose at least one level').max(60),
});
export type ExclusionRule = z.infer<typeof exclusionRuleSchema>;

export const DESIGN_KINDS = ['full', 'pairs', 'effects', 'one change', 'ladder'] as const;

/** Which cells of the matrix are recorded. */
export const designSchema = z.object({
  kind: z.enum(DESIGN_KINDS).default('full'),
  /** Base of one change at a time, by factor kind; where it is silent the first ticked level. */
  base: z.partialRecord(factorKindSchema, z.string().max(60)).default({}),
  /** Two-way effects that a design for effects keeps. */
  interactions: z
    .array(z.tuple([factorKindSchema, factorKindSchema]))
    .max(20)
    .default([]),
  /** The factor whose rungs a ladder climbs, and the two scripts done at each. */
  ladder: z.object({ kind: factorKindSchema.default('noise'), speechId: z.string().max(60).default(''), silenceId: z.string().max(60).default('') }).prefault({}),
});
export type Design = z.infer<typeof designSchema>;

/** What bounds how many candidates one take can carry. */
export const togetherLimitsSchema = z.object({
  tracks: z.number().int().min(1, 'A recorder has 1 to 64 tracks').max(64, 'A recorder has 1 to 64 tracks').default(8),
  onChest: z.number().int().min(1, '1 to 12 microphones on one chest').max(12, '1 to 12 microphones on one chest').default(4),
  /** Pairs of candidates that would disturb each other, by chain id. */
  apart: z
    .array(z.tuple([idSchema, idSchema]))
    .max(100)
    .default([]),
});
export type TogetherLimits = z.infer<typeof togetherLimitsSchema>;

/** How the takes are put into order. */
export const orderRulesSchema = z.object({
  /** Lets each candidate go first in turn, where candidates are recorded apart. */
  counterbalanced: z.boolean().default(false),
  /** A block is finished before the next begins: each station in one visit, or first the stations that need daylight. */
  blockedBy: z.enum(['none', 'station', 'daylight']).default('none'),
  /** Takes that were locked to a place in the order, by the key of the planned take. */
  pinned: z
    .array(z.object({ key: z.string().max(1200), position: z.number().int().nonnegative() }))
    .max(2000)
    .default([]),
});
export type OrderRules = z.infer<typeof orderRulesSchema>;

export const breakSchema = z.object({ startsAtMs: instantMsSchema, lengthMin: z.number().min(1, 'A break lasts 1 to 480 min').max(480, 'A break lasts 1 to 480 min') });

/** When the day starts and what interrupts it. */
export const dayPlanSchema = z.object({
  startsAtMs: instantMsSchema.nullable().default(null),
  endsAtMs: instantMsSchema.nullable().default(null),
  breaks: z.array(breakSchema).max(12).default([]),
  batteryChangeMin: z.number().min(0, 'A change of batteries takes 0 to 60 min').max(60, 'A change of batteries takes 0 to 60 min').default(5),
});
export type DayPlan = z.infer<typeof dayPlanSchema>;

export const planDraftSchema = z.object({
  factors: z.array(factorSchema).max(14),
  /** Setup keys of the cells that are left out by hand. */
  leftOut: z.array(z.string().max(600)).max(20_000).default([]),
  rules: z.array(exclusionRuleSchema).max(60).default([]),
  design: designSchema.prefault({}),
  repeats: z.number().int().min(1, 'Each setup is done 1 to 10 times').max(10, 'Each setup is done 1 to 10 times').default(1),
  /** Candidates of equal condition share one take, as far as the limits let them: same words, same moment. */
  together: z.boolean().default(true),
  togetherLimits: togetherLimitsSchema.prefault({}),
  /** Factors whose levels are recorded at one moment, in one take, with gear for each. */
  atOnce: z.array(z.enum(SIMULTANEOUS_KINDS)).max(SIMULTANEOUS_KINDS.length).default([]),
  /** Levels that were taken out of the plan: takes may still speak of them, and they can be brought back. */
  removedLevels: z
    .array(z.object({ kind: factorKindSchema, level: levelSchema }))
    .max(400)
    .default([]),
  controls: z.array(controlSchema).max(40).default([]),
  changeTimesS: changeTimesSchema.default(DEFAULT_CHANGE_TIMES),
  changeExceptions: z.array(changeExceptionSchema).max(400).default([]),
  /** Slating, waiting and checking around every take, in seconds. */
  overheadS: z.number().min(0, 'Overhead is 0 to 600 s').max(600, 'Overhead is 0 to 600 s').default(25),
  order: orderRulesSchema.prefault({}),
  day: dayPlanSchema.prefault({}),
  faultSearch: faultSearchSchema.nullable().default(null),
});
export type PlanDraft = z.infer<typeof planDraftSchema>;

export const planSchema = planDraftSchema.extend({ trialId: idSchema, version: versionSchema, committedAtMs: instantMsSchema.nullable() });
export type Plan = z.infer<typeof planSchema>;
