import { z } from 'zod';
import { nameSchema } from './identity.ts';

/**
 * What can be varied. The order is the order of cost: what stands earlier costs more to change, so a
 * plan changes it less often.
 */
export const FACTOR_KINDS = ['station', 'candidate', 'windscreen', 'distance', 'script'] as const;
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

/** A level for every factor: one cell of the plan. Keys are factor kinds, values level ids. */
export type Setup = Record<FactorKind, string>;

/** A setup without its candidate: everything that the candidates of one take share. */
export type Condition = Omit<Setup, 'candidate'>;
export const conditionSchema = z.object({
  station: z.string(),
  windscreen: z.string(),
  distance: z.string(),
  script: z.string(),
});
export type ConditionKind = Exclude<FactorKind, 'candidate'>;
export const CONDITION_KINDS = FACTOR_KINDS.filter((kind) => kind !== 'candidate') as ConditionKind[];

/** Key under which equal conditions meet. */
export function conditionKey(condition: Condition): string {
  return CONDITION_KINDS.map((kind) => condition[kind]).join('|');
}

/** Key under which equal setups meet; a plan keeps the cells it leaves out by this key. */
export function setupKey(setup: Setup): string {
  return `${setup.candidate}|${conditionKey(setup)}`;
}
