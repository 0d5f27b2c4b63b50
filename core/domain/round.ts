import { z } from 'zod';
import { idSchema, instantMsSchema, nameSchema, remarkSchema } from './identity.ts';

/** Most clips of one round; beyond it nobody keeps them apart. */
export const MOST_CLIPS = 12;

/**
 * How a round is judged: points for every clip; clips put in order; which of two is better; whether X is A or B; which of three, two of
 * which are one recording, is the odd one.
 */
export const roundKindSchema = z.enum(['scores', 'ranked', 'better', 'same', 'odd']);
export type RoundKind = z.infer<typeof roundKindSchema>;
/** Clips that are hidden among those of a round with points: one that is heard already, under a second letter; one that was made worse on purpose. */
export const hiddenCheckSchema = z.enum(['again', 'worse']);
export type HiddenCheck = z.infer<typeof hiddenCheckSchema>;

/** Kinds that are heard in comparisons of two or three clips. */
export type PairedKind = Exclude<RoundKind, 'scores' | 'ranked'>;

/** Whether a round is heard in comparisons of two or three clips; else all clips are heard beside each other. */
export const isPaired = (kind: RoundKind): kind is PairedKind => kind !== 'scores' && kind !== 'ranked';

/** Most recordings of which every two are compared. */
export const MOST_PAIRED = 6;
/** Most comparisons of one listener; beyond it ears are tired. */
export const MOST_COMPARISONS = 100;

const roundFields = z.object({
  title: nameSchema,
  kind: roundKindSchema.default('scores'),
  /** Comparisons that each listener does, of "which is better" for each two; null is as many as the listener wants. */
  comparisons: z
    .number()
    .int('Whole numbers only')
    .min(1, 'At least one comparison')
    .max(MOST_COMPARISONS, `At most ${MOST_COMPARISONS} comparisons: beyond it ears are tired`)
    .nullable()
    .default(null),
  recordingIds: z.array(idSchema).min(2, 'Choose at least two recordings').max(MOST_CLIPS, `At most ${MOST_CLIPS} clips can be told apart`),
  criterionIds: z.array(idSchema).max(8),
  checks: z.array(hiddenCheckSchema).max(2).default([]),
  /** Whether who judged the clip that is there twice alike weighs more in the verdict. */
  steadyWeighs: z.boolean().default(false),
  /** When identities open: once each listener is done, or once whoever made the round closes it. */
  opens: z.enum(['done', 'closed']).default('done'),
  targetLufs: z.number().min(-40, 'The target is -40 to -10 LUFS').max(-10, 'The target is -40 to -10 LUFS').default(-23),
  ceilingDbtp: z.number().min(-12, 'The ceiling is -12 to 0 dBTP').max(0, 'The ceiling is -12 to 0 dBTP').default(-1),
});

/** What clips are heard, and how loud. */
export const clipsDraftSchema = roundFields.pick({ recordingIds: true, targetLufs: true, ceilingDbtp: true });

/** How many of each a round is to have. */
export interface RoundShape {
  kind: RoundKind;
  recordings: number;
  criteria: number;
  comparisons: number | null;
  checks: readonly HiddenCheck[];
  steadyWeighs: boolean;
}

/** Whether clips of a kind are judged on criteria; else there is one question, which has a right answer. */
export const isOnCriteria = (kind: RoundKind): boolean => kind !== 'same' && kind !== 'odd';

/** Comparisons of one listener where each two recordings, or the two there are, are compared so often. */
export const comparisonsInAll = (kind: RoundKind, recordings: number, each: number): number => (kind === 'better' ? (recordings * (recordings - 1)) / 2 : 1) * each;

/** What is wrong with a round, field by field: told where it is made, and refused by the server. */
export function roundTroubles({ kind, recordings, criteria, comparisons, checks, steadyWeighs }: RoundShape): { field: keyof RoundDraft; why: string }[] {
  const all = comparisonsInAll(kind, recordings, comparisons ?? 1);
  const rules: [wrong: boolean, field: keyof RoundDraft, why: string][] = [
    [isOnCriteria(kind) && criteria === 0, 'criterionIds', 'Choose at least one listened criterion'],
    [!isOnCriteria(kind) && recordings !== 2, 'recordingIds', 'Two recordings are told apart at a time: choose two'],
    [new Set(checks).size < checks.length, 'checks', 'Each check is hidden once'],
    [checks.length > 0 && kind !== 'scores', 'checks', 'Checks are hidden among clips that get points'],
    [steadyWeighs && !checks.includes('again'), 'steadyWeighs', 'How steady a listener is shows where one clip is hidden twice: hide it, or let all weigh alike'],
    [recordings + checks.length > MOST_CLIPS, 'recordingIds', `With what is hidden at most ${MOST_CLIPS} clips can be told apart`],
    [kind === 'better' && recordings > MOST_PAIRED, 'recordingIds', `Of more than ${MOST_PAIRED} recordings there are too many pairs: choose fewer, or give points`],
    [kind === 'better' && all > MOST_COMPARISONS, 'comparisons', `That would be ${all} comparisons; ${MOST_COMPARISONS} are the most that ears can do`],
  ];
  return rules.flatMap(([wrong, field, why]) => (wrong ? [{ field, why }] : []));
}

/** A listening round: which recordings, at which loudness, judged how and on what. */
export const roundDraftSchema = roundFields.superRefine(({ recordingIds, criterionIds, ...rest }, context) => {
  const troubles = roundTroubles({ ...rest, recordings: recordingIds.length, criteria: criterionIds.length });
  for (const { field, why } of troubles) context.addIssue({ code: 'custom', path: [field], message: why });
});
export type RoundDraft = z.output<typeof roundFields>;

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

/** What a listener answered in a comparison: a letter for each criterion, or one, without a criterion, where there is a right answer. */
export const choiceDraftSchema = z.object({
  picks: z
    .array(z.object({ criterionId: idSchema.nullable(), letter: z.string().regex(/^[A-C]$/, 'A clip of a comparison goes by A, B or C') }))
    .min(1, 'Choose a clip')
    .max(8),
});
export type ChoiceDraft = z.infer<typeof choiceDraftSchema>;
export const choiceSchema = choiceDraftSchema.extend({ listenerId: idSchema, number: z.number().int().min(0), atMs: instantMsSchema });

/** An answered comparison, with the recordings that its letters stood for; known to the page only after the listener is done. */
export interface HeardChoice extends ChoiceDraft {
  recordingIds: string[];
}

/** Clips in order on a criterion, the best first; those that are equally good stand together. */
const orderSchema = z.array(z.array(ratingDraftSchema.shape.letter).min(1)).min(1).max(MOST_CLIPS);
export type ClipOrder = z.infer<typeof orderSchema>;
export const rankingDraftSchema = z.object({ criterionId: idSchema, order: orderSchema });
export type RankingDraft = z.infer<typeof rankingDraftSchema>;

/** Which candidate a listener took each clip for: candidates by letter, each once. */
export const guessDraftSchema = z.object({ candidateIds: z.record(z.string().regex(/^[A-L]$/, 'A clip goes by one letter, A to L'), idSchema) });
export type GuessDraft = z.infer<typeof guessDraftSchema>;

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
  /** Letters that were hidden checks. */
  checks: Record<string, HiddenCheck>;
  ratings: Rating[];
  /** Candidates that the letters were taken for, once identities are open; null where nobody guessed. */
  guess: Record<string, string> | null;
  /** The order of the clips on each criterion, once identities are open; empty where they are not put in order. */
  orders: Record<string, ClipOrder>;
  /** Listens by a page that was sent, and not here. */
  away: boolean;
  /** What opens the names on that page: told once its answers are in and identities are open. */
  awayKey: string | null;
  /** Scores, or orders, that are given, of how many. */
  scored: [given: number, of: number];
  /** Comparisons that were answered, of how many; null where the listener ends when they want. */
  compared: [answered: number, of: number | null];
  /** What was answered in them, once identities are open. */
  choices: HeardChoice[];
}

/** A round as it is stored. */
export const roundSchema = roundFields.extend({
  id: idSchema,
  trialId: idSchema,
  sample: z.boolean(),
  createdAtMs: instantMsSchema,
  binnedAtMs: instantMsSchema.nullable(),
  /** Of which recordings the checks are, by their place; only the server knows before the end. */
  checkOf: z.array(z.number().int().nonnegative()).default([]),
  /** When whoever made it closed it; null while it is open, or where it is not closed by hand. */
  closedAtMs: instantMsSchema.nullable().default(null),
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
  /** What is laid ready for this listener: of each comparison the places of its clips; null where points are given. */
  comparisons: z.array(z.array(z.number().int().nonnegative())).nullable().default(null),
  /** When the scores were closed to guess which is which: candidates are named from then on. */
  closedAtMs: instantMsSchema.nullable().default(null),
  guess: guessDraftSchema.shape.candidateIds.nullable().default(null),
  /** The order of the clips on each criterion where they are put in order. */
  orders: z.record(idSchema, orderSchema).default({}),
  /** What the names on a page that was sent are locked with (hexadecimal, 128 bit); null for who listens here. */
  awayKey: z
    .string()
    .regex(/^[0-9a-f]{32}$/)
    .nullable()
    .default(null),
});

export const ratingSchema = ratingDraftSchema.extend({ listenerId: idSchema });

/** A round as the page sees it. */
export interface Round extends RoundDraft {
  id: string;
  trialId: string;
  sample: boolean;
  createdAtMs: number;
  matchedLufs: number;
  closedAtMs: number | null;
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
  kind: RoundKind;
  /** The comparison that is next: its number from 0, and the letters of its clips; null where there is none, or points are given. */
  next: { number: number; letters: string[] } | null;
  /** Comparisons in all; null where the listener ends when they want. */
  comparisons: number | null;
  letters: string[];
  matchedLufs: number;
  targetLufs: number;
  criteria: { id: string; name: string; remark: string; best: number; worst: number; worstWords: string; bestWords: string }[];
  ratings: RatingDraft[];
  /** The order of the clips on each criterion, as far as it is given. */
  orders: Record<string, ClipOrder>;
  /** When identities open. */
  opens: z.output<typeof roundFields>['opens'];
  /** Whether it may be guessed which is which once all scores are in: each recording is of another candidate. */
  guessable: boolean;
  /** Candidates to guess among, once the scores are closed; none where some clips turn out to be hidden checks. */
  guess: { id: string; name: string }[] | null;
  finished: boolean;
  /** Whether whoever made the round has closed it. */
  closed: boolean;
}
