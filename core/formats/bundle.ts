import { z } from 'zod';
import { chainDraftSchema } from '../domain/chain.ts';
import { criterionDraftSchema, markDraftSchema } from '../domain/criterion.ts';
import { conditionSchema } from '../domain/factor.ts';
import { idSchema, instantMsSchema, nameSchema, remarkSchema } from '../domain/identity.ts';
import { itemDraftSchema } from '../domain/item.ts';
import { controlSchema, planDraftSchema } from '../domain/plan.ts';
import { preflightTickSchema } from '../domain/preflight.ts';
import { listenerDraftSchema, roundDraftSchema } from '../domain/round.ts';
import { scriptDraftSchema } from '../domain/script.ts';
import { stationDraftSchema } from '../domain/station.ts';
import { GAIN_STAGES, TAKE_FLAGS } from '../domain/take.ts';
import { trialDraftSchema } from '../domain/trial.ts';

const withId = { id: idSchema };

const takeSchema = z.object({
  ...withId,
  slate: z.number().int().positive(),
  pass: z.number().int().positive(),
  position: z.number().int().nonnegative(),
  condition: conditionSchema,
  candidateIds: z.array(idSchema).min(1),
  status: z.enum(['planned', 'done', 'skipped']),
  startedAtMs: instantMsSchema.nullable(),
  stoppedAtMs: instantMsSchema.nullable(),
  flags: z.array(z.object({ flag: z.enum(TAKE_FLAGS), atMs: instantMsSchema })),
  note: remarkSchema,
  gains: z.record(idSchema, z.partialRecord(z.enum(GAIN_STAGES), z.number())),
  windMs: z.number().nullable(),
  noiseDba: z.number().nullable(),
  controls: z.array(controlSchema),
});

/** A recording named by its place in the bundle: the file's name and the candidate of the channel. */
const heardSchema = z.object({ fileName: z.string(), candidateId: idSchema });

const roundSchema = z.object({
  ...withId,
  ...roundDraftSchema.omit({ recordingIds: true }).shape,
  recordings: z.array(heardSchema).min(2),
  listeners: z.array(
    z.object({
      ...withId,
      ...listenerDraftSchema.shape,
      order: z.array(z.number().int().nonnegative()),
      ratings: z.array(z.object({ place: z.number().int(), criterionId: idSchema, points: z.number().int().min(0).max(10), reason: remarkSchema })),
    }),
  ),
});

const trialSchema = z.object({
  ...withId,
  ...trialDraftSchema.shape,
  createdAtMs: instantMsSchema,
  expectations: z.array(z.object({ person: nameSchema, candidateId: idSchema, reason: remarkSchema, sealedAtMs: instantMsSchema })).default([]),
  preflight: z.array(preflightTickSchema).default([]),
  verdictOpenedAtMs: instantMsSchema.nullable(),
  criteria: z.array(z.intersection(criterionDraftSchema, z.object(withId))),
  chains: z.array(chainDraftSchema.extend(withId)),
  stations: z.array(stationDraftSchema.extend(withId)),
  scripts: z.array(scriptDraftSchema.extend(withId)),
  plan: planDraftSchema,
  marks: z.array(markDraftSchema),
  takes: z.array(takeSchema),
  /** Files beside the bundle; each finds its take by its name. */
  files: z.array(z.object({ name: z.string().regex(/^[A-Za-z0-9 ._-]+$/) })),
  rounds: z.array(roundSchema),
});

/** Whole trials in one document: what the demo is delivered in. Audio lies beside it by name. */
export const bundleSchema = z.object({
  marvetBundle: z.literal(1),
  items: z.array(itemDraftSchema.extend(withId)),
  trials: z.array(trialSchema),
});
export type Bundle = z.infer<typeof bundleSchema>;
export type BundledTrial = Bundle['trials'][number];
