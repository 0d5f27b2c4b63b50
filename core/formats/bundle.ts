import { z } from 'zod';
import { chainSchema } from '../domain/chain.ts';
import { criterionDraftSchema, markSchema } from '../domain/criterion.ts';
import { deviceSchema } from '../domain/device.ts';
import { frameSchema } from '../domain/frame.ts';
import { idSchema } from '../domain/identity.ts';
import { itemSchema } from '../domain/item.ts';
import { momentSchema } from '../domain/moment.ts';
import { placementSchema } from '../domain/placement.ts';
import { planSchema } from '../domain/plan.ts';
import { preflightRowSchema } from '../domain/preflight.ts';
import { readingSecondSchema } from '../domain/reading.ts';
import { audioFileSchema, recordingSchema } from '../domain/recording.ts';
import { rigRecordSchema } from '../domain/rigRecord.ts';
import { choiceSchema, listenerSchema, ratingSchema, roundSchema } from '../domain/round.ts';
import { scriptSchema } from '../domain/script.ts';
import { sightSchema } from '../domain/sight.ts';
import { stationSchema } from '../domain/station.ts';
import { takeSchema } from '../domain/take.ts';
import { expectationSchema, trialSchema } from '../domain/trial.ts';
import { wearerSchema } from '../domain/wearer.ts';

// Each record is what it is in the store, without what only the store has: whose it is, how often it was
// changed, and whether it lies in the bin.
const STORED_ONLY = { trialId: true, version: true, binnedAtMs: true } as const;
const OF_TRIAL = { trialId: true, binnedAtMs: true } as const;

const bundledRecordingSchema = recordingSchema.omit({ trialId: true, fileId: true, figures: true, stereo: true, backup: true }).extend({
  roomTone: recordingSchema.shape.roomTone.default(null),
  performance: recordingSchema.shape.performance.default(null),
  corrections: recordingSchema.shape.corrections.default([]),
  startS: recordingSchema.shape.startS.default(null),
  endS: recordingSchema.shape.endS.default(null),
  cutBy: recordingSchema.shape.cutBy,
});

/** A file beside the bundle, and what its channels are. Figures are measured where it comes in. */
const bundledFileSchema = z.object({
  id: idSchema,
  name: z.string().regex(/^[A-Za-z0-9 ._-]+$/, 'A file in a bundle is named with letters, digits, spaces, dots, lines and underlines'),
  slateSpoken: audioFileSchema.shape.slateSpoken.default(null),
  recordings: z.array(bundledRecordingSchema).max(32),
});

/** A round as it was heard. Where its clips begin and how they were matched follows from the recordings. */
const bundledRoundSchema = roundSchema.omit({ ...OF_TRIAL, matchedLufs: true, gainsDb: true, cuts: true, lengthS: true }).extend({
  listeners: z.array(
    listenerSchema
      .omit({ roundId: true, binnedAtMs: true })
      .extend({ ratings: z.array(ratingSchema.omit({ listenerId: true })), choices: z.array(choiceSchema.omit({ listenerId: true })).default([]) }),
  ),
});

/** What a device told, second by second. */
const bundledReadingsSchema = z.object({ deviceId: idSchema, atS: z.number().int().nonnegative(), values: readingSecondSchema.shape.values });

const bundledTrialSchema = trialSchema.omit({ version: true, binnedAtMs: true }).extend({
  expectations: z.array(expectationSchema.omit({ trialId: true })).default([]),
  preflight: z.array(preflightRowSchema.omit({ trialId: true })).default([]),
  criteria: z.array(z.intersection(criterionDraftSchema, z.object({ id: idSchema }))),
  chains: z.array(chainSchema.omit(STORED_ONLY)),
  stations: z.array(stationSchema.omit(STORED_ONLY)),
  placements: z.array(placementSchema.omit(STORED_ONLY)).default([]),
  rigs: z.array(rigRecordSchema.omit(STORED_ONLY)).default([]),
  frames: z.array(frameSchema.omit(STORED_ONLY)).default([]),
  wearers: z.array(wearerSchema.omit(STORED_ONLY)).default([]),
  sights: z.array(sightSchema.omit(STORED_ONLY)).default([]),
  devices: z.array(deviceSchema.omit(STORED_ONLY)).default([]),
  readings: z.array(bundledReadingsSchema).default([]),
  scripts: z.array(scriptSchema.omit(STORED_ONLY)),
  plan: planSchema.omit({ trialId: true, version: true }),
  marks: z.array(markSchema.omit({ trialId: true })),
  takes: z.array(takeSchema.omit(OF_TRIAL)),
  files: z.array(bundledFileSchema),
  rounds: z.array(bundledRoundSchema),
  moments: z.array(momentSchema.omit(OF_TRIAL)).default([]),
});

/** Whole trials in one document, as they are: takes with their setups, files tied to them, and who heard what. Audio lies beside it by name. */
export const bundleSchema = z.object({
  marvetBundle: z.literal(2, 'This is no bundle of this version of Marvet'),
  items: z.array(itemSchema.omit({ version: true, binnedAtMs: true })),
  trials: z.array(bundledTrialSchema),
});
export type Bundle = z.infer<typeof bundleSchema>;
export type BundledTrial = Bundle['trials'][number];

/** A trial for a bundle, checked; what has a usual value may be left out. */
export const bundledTrial = (trial: z.input<typeof bundledTrialSchema>): BundledTrial => bundledTrialSchema.parse(trial);
