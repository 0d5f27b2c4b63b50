import { z } from 'zod';
import { nameSchema } from './identity.ts';

/** Kinds that every plan has; a matrix needs at least one level of each. */
export const BASIC_KINDS = ['station', 'candidate', 'windscreen', 'distance', 'script'] as const;
export type BasicKind = (typeof BASIC_KINDS)[number];

/** Kinds that a plan may have besides; a trial that does not vary them leaves them away. */
export const EXTRA_KINDS = ['talker', 'rig', 'placement', 'orientation', 'noise', 'processing', 'speed', 'effort', 'other'] as const;
export type ExtraKind = (typeof EXTRA_KINDS)[number];

/**
 * What can be varied. The order is the order of cost as it mostly is: what stands earlier costs more to
 * change, so a plan changes it less often. What it really costs stands in the plan.
 */
export const FACTOR_KINDS = [
  'station',
  'candidate',
  'talker',
  'rig',
  'placement',
  'noise',
  'speed',
  'windscreen',
  'distance',
  'orientation',
  'processing',
  'effort',
  'other',
  'script',
] as const satisfies readonly (BasicKind | ExtraKind)[];
export const factorKindSchema = z.enum(FACTOR_KINDS);
export type FactorKind = z.infer<typeof factorKindSchema>;

/**
 * One value of a factor. For candidates, stations and scripts `id` is the record's identity and the
 * label follows that record; for the others both are given here.
 */
export const levelSchema = z.object({
  id: z.string().min(1).max(60),
  label: z.string().trim().min(1, 'Give the level a name').max(120, 'Use at most 120 characters'),
  /** The number behind a level, in the factor's unit; null where the level is a name only. */
  value: z.number().finite().nullable().default(null),
  ticked: z.boolean().default(true),
});
export type Level = z.infer<typeof levelSchema>;

export const factorSchema = z.object({
  kind: factorKindSchema,
  name: nameSchema,
  unit: z.string().max(20).default(''),
  levels: z.array(levelSchema).max(60, 'A factor has at most 60 levels'),
});
export type Factor = z.infer<typeof factorSchema>;

/** A level for every factor of the plan: one cell. Keys are factor kinds, values level ids. */
export type Setup = Record<BasicKind, string> & Partial<Record<ExtraKind, string>>;

/** A setup without its candidate: where, how, with what and what is said. */
export type Condition = Omit<Setup, 'candidate'>;

/**
 * What may differ within one take, besides the candidate: the same lavalier high and low, fur on one
 * boom and off the other. A talker has one place and one text at a time.
 */
export type WithinKind = Exclude<ConditionKind, 'station' | 'script'>;
/** What all setups of a take share; a kind that differs within the take is left out. */
export type SharedCondition = Pick<Condition, 'station' | 'script'> & Partial<Pick<Condition, WithinKind>>;
/** Levels of one setup on what differs within its take. */
export type SetupLevels = Partial<Record<WithinKind, string>>;

/** Kinds whose levels can be planned for one moment: each needs gear of its own, but the talker needs not change. */
export const SIMULTANEOUS_KINDS = ['placement', 'rig', 'windscreen', 'processing'] as const satisfies readonly FactorKind[];
export type SimultaneousKind = (typeof SIMULTANEOUS_KINDS)[number];

/** In place of a level where nobody said which it was, as in recordings that came without a plan. */
export const NOT_KNOWN = 'not known';

const levelId = z.string().min(1).max(60);
export const conditionSchema = z.object({
  station: z.string(),
  windscreen: z.string(),
  distance: z.string(),
  script: z.string(),
  ...(Object.fromEntries(EXTRA_KINDS.map((kind) => [kind, levelId.exactOptional()])) as Record<ExtraKind, z.ZodExactOptional<typeof levelId>>),
});
export type ConditionKind = Exclude<FactorKind, 'candidate'>;
export const CONDITION_KINDS = FACTOR_KINDS.filter((kind) => kind !== 'candidate') as ConditionKind[];
export const WITHIN_KINDS = CONDITION_KINDS.filter((kind) => kind !== 'station' && kind !== 'script') as [WithinKind, ...WithinKind[]];

export const sharedConditionSchema = z.object({ ...conditionSchema.shape, windscreen: z.string().exactOptional(), distance: z.string().exactOptional() });
export const setupLevelsSchema = z.partialRecord(z.enum(WITHIN_KINDS), levelId);

const BASIC_CONDITION_KINDS = ['station', 'windscreen', 'distance', 'script'] as const;

/**
 * Key under which equal conditions meet. Kinds that a plan may have besides are named, so that a key of
 * before they were added stays valid; what differs within a take is a star.
 */
export function conditionKey(condition: SharedCondition): string {
  let key = BASIC_CONDITION_KINDS.map((kind) => condition[kind] ?? '*').join('|');
  for (const kind of EXTRA_KINDS) if (condition[kind] !== undefined) key += `|${kind}=${condition[kind]}`;
  return key;
}

/** The condition of a {@link conditionKey}, without what differs within its take. */
export function conditionOfKey(key: string): Partial<SharedCondition> {
  const parts = key.split('|');
  const basic = BASIC_CONDITION_KINDS.map((kind, place) => [kind, parts[place] ?? '*']).filter(([, levelId]) => levelId !== '*');
  return Object.fromEntries([...basic, ...parts.slice(BASIC_CONDITION_KINDS.length).map((part) => part.split('='))]);
}

/** Key under which equal setups meet; a plan keeps the cells it leaves out by this key. */
export function setupKey(setup: Setup): string {
  return `${setup.candidate}|${conditionKey(setup)}`;
}

/** A condition of which nothing is known. */
export const UNKNOWN_CONDITION = { station: NOT_KNOWN, distance: NOT_KNOWN, windscreen: NOT_KNOWN, script: NOT_KNOWN } as const satisfies Condition;
