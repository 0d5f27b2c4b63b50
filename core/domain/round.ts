import { z } from 'zod';
import { idSchema, instantMsSchema, nameSchema, remarkSchema } from './identity.ts';

/** Most clips of one round; beyond it nobody keeps them apart. */
export const MOST_CLIPS = 12;

/** A listening round: which recordings, at which loudness, judged on what. */
export const roundDraftSchema = z.object({
  title: nameSchema,
  recordingIds: z.array(idSchema).min(2, 'Choose at least two recordings').max(MOST_CLIPS, `At most ${MOST_CLIPS} clips can be told apart`),
  criterionIds: z.array(idSchema).min(1, 'Choose at least one listened criterion').max(8),
  targetLufs: z.number().min(-40, 'The target is -40 to -10 LUFS').max(-10, 'The target is -40 to -10 LUFS').default(-23),
  ceilingDbtp: z.number().min(-12, 'The ceiling is -12 to 0 dBTP').max(0, 'The ceiling is -12 to 0 dBTP').default(-1),
});
export type RoundDraft = z.infer<typeof roundDraftSchema>;

export const listenerDraftSchema = z.object({
  name: nameSchema,
  listenedOn: z.string().trim().min(1, 'Say what you listen on').max(120, 'Use at most 120 characters'),
});
export type ListenerDraft = z.infer<typeof listenerDraftSchema>;

export const ratingDraftSchema = z.object({
  letter: z.string().regex(/^[A-L]$/, 'A clip goes by one letter, A to L'),
  criterionId: idSchema,
  points: z.number().int('Whole points only').min(0, 'Points run from 0 to 10').max(10, 'Points run from 0 to 10'),
  reason: remarkSchema,
});
export type RatingDraft = z.infer<typeof ratingDraftSchema>;

/** A rating with the recording that its letter stood for; known to the page only after the listener is done. */
export interface Rating extends RatingDraft {
  listenerId: string;
}

/** What anyone may see of a listener. `letters` maps letters to recordings once the listener is done. */
export interface Listener extends ListenerDraft {
  id: string;
  roundId: string;
  sample: boolean;
  finishedAtMs: number | null;
  letters: Record<string, string> | null;
  ratings: Rating[];
}

/** A round as it is stored. */
export const roundSchema = roundDraftSchema.extend({
  id: idSchema,
  trialId: idSchema,
  sample: z.boolean(),
  createdAtMs: instantMsSchema,
  binnedAtMs: instantMsSchema.nullable(),
  matchedLufs: z.number(),
  gainsDb: z.array(z.number()),
  /** Where each clip begins in its file, and what delay against the first was taken out; null in rounds of before clips were aligned. */
  cuts: z.array(z.object({ startS: z.number(), delayMs: z.number().nullable() })).nullable(),
  /** Length of all clips. */
  lengthS: z.number().nullable(),
});

/** A listener as it is stored: places in the round's recordings, in the order of this listener's letters. */
export const listenerSchema = listenerDraftSchema.extend({
  id: idSchema,
  roundId: idSchema,
  sample: z.boolean(),
  createdAtMs: instantMsSchema,
  finishedAtMs: instantMsSchema.nullable(),
  binnedAtMs: instantMsSchema.nullable(),
  order: z.array(z.number().int().nonnegative()),
});

export const ratingSchema = ratingDraftSchema.extend({ listenerId: idSchema });

/** A round as the page sees it. */
export interface Round extends RoundDraft {
  id: string;
  trialId: string;
  sample: boolean;
  createdAtMs: number;
  matchedLufs: number;
  /** Delays that were taken out, by place in the round; null where nothing is told. */
  delaysMs: (number | null)[] | null;
  listeners: Listener[];
}

/** All that the listening page gets before the listener is done. */
export interface BlindRound {
  listenerId: string;
  listenerName: string;
  listenedOn: string;
  title: string;
  letters: string[];
  matchedLufs: number;
  targetLufs: number;
  criteria: { id: string; name: string; remark: string; best: number; worst: number; worstWords: string; bestWords: string }[];
  ratings: RatingDraft[];
  finished: boolean;
}
