import { z } from 'zod';
import { idSchema } from '../domain/identity.ts';
import { listenerDraftSchema, rankingDraftSchema, ratingDraftSchema } from '../domain/round.ts';

/** What somebody answered on a page that was sent: a file of JSON, made by the page. */
export const answersFileSchema = z.object({
  marvetAnswers: z.literal(1, 'This is no file of answers. Choose the one that the page saved, named "answers of ...".'),
  /** The seat that the page was made for. */
  listenerId: idSchema,
  listenedOn: listenerDraftSchema.shape.listenedOn,
  ratings: z.array(ratingDraftSchema).max(100).default([]),
  /** The order of the clips by criterion. */
  orders: z.record(idSchema, rankingDraftSchema.shape.order).default({}),
});
export type AnswersFile = z.infer<typeof answersFileSchema>;
