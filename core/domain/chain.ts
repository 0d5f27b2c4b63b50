import { z } from 'zod';
import { powerSchema } from './connector.ts';
import { idSchema, nameSchema, OWNED, remarkSchema } from './identity.ts';
import { wordLengthSchema } from './item.ts';
import { tapeSchema } from './tape.ts';

/** How one link of a chain is set. Null means that the link has no such setting or that nobody noted it. */
export const linkSettingsSchema = z.object({
  gainDb: z.number().min(-60, 'Gain is -60 to 90 dB').max(90, 'Gain is -60 to 90 dB').nullable().default(null),
  padDb: z.number().min(0, 'A pad is 0 to 40 dB').max(40, 'A pad is 0 to 40 dB').nullable().default(null),
  lowCutHz: z.number().min(0, 'Low-cut is 0 to 500 Hz').max(500, 'Low-cut is 0 to 500 Hz').nullable().default(null),
  limiter: z.boolean().nullable().default(null),
  automaticLevel: z.boolean().nullable().default(null),
  noiseReduction: z.boolean().nullable().default(null),
  /** Level of a second track under the first, for what is louder than expected; 0 is no such track. */
  safetyTrackDb: z.number().min(-40, 'A safety track lies 0 to 40 dB under').max(0, 'A safety track lies 0 to 40 dB under').nullable().default(null),
  wordLength: wordLengthSchema.nullable().default(null),
  sampleRateHz: z.number().int().min(8000, 'Rates are 8,000 to 384,000 Hz').max(384_000, 'Rates are 8,000 to 384,000 Hz').nullable().default(null),
  lineLevel: z.enum(['mic', 'line']).nullable().default(null),
  /** What the input is set to feed. */
  power: powerSchema.nullable().default(null),
  note: z.string().trim().max(200, 'Use at most 200 characters').default(''),
});

export type LinkSettings = z.infer<typeof linkSettingsSchema>;

/** Settings of a link that nobody has set yet. */
export const NO_SETTINGS: LinkSettings = linkSettingsSchema.parse({});

export const chainLinkSchema = z.object({
  itemId: idSchema,
  settings: linkSettingsSchema,
});

/** Where the microphone sits; a rig on skin brings its caution along. */
export const rigSchema = z.object({
  placement: z.string().trim().max(120, 'Use at most 120 characters').default(''),
  onSkin: z.boolean().default(false),
});

/** A passive split: the first links are those of another chain, so that both hear the same. */
export const splitSchema = z.object({ chainId: idSchema, links: z.number().int().min(1, 'A split shares at least one link').max(15, 'A split shares at most 15 links') });

export const chainDraftSchema = z.object({
  name: nameSchema,
  links: z.array(chainLinkSchema).max(16, 'A chain has at most 16 links').default([]),
  rig: rigSchema.prefault({}),
  split: splitSchema.nullable().default(null),
  /** A candidate takes part in the trial and carries a tape; a chain kept for reference does not. */
  candidate: z.boolean().default(true),
  tape: tapeSchema,
  remark: remarkSchema,
  position: z.number().int().nonnegative().default(0),
});
export type ChainDraft = z.infer<typeof chainDraftSchema>;

export const chainSchema = chainDraftSchema.extend(OWNED);
/** As it is stored and answered. */
export type StoredChain = z.infer<typeof chainSchema>;
export type Chain = ChainDraft & { id: string; trialId: string };
