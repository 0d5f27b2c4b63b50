import { idSchema } from '../domain/identity.ts';
import { clipsDraftSchema } from '../domain/round.ts';
import { clipsInAddressSchema } from './clipPieces.ts';

/** What is to be heard with open eyes, and how loud. */
export const openListeningSchema = clipsDraftSchema;

/** The same as it stands in the address of a piece: and what all are brought nearest to, heard after them as they are. */
export const openPiecesSchema = clipsInAddressSchema.extend({ equalTo: idSchema.optional() });

/** Clips of equal length and loudness, aligned. */
export interface OpenListening {
  matchedLufs: number;
  lengthS: number;
  clips: { recordingId: string; startS: number; gainDb: number }[];
}
