import { z } from 'zod';
import { idSchema, instantMsSchema, sha256Schema } from './identity.ts';

export const voiceTypeSchema = z.enum(['audio/webm', 'audio/ogg', 'audio/mp4', 'audio/wav']);

/** A note that was spoken at a take, as the browser recorded it. It is no recording of a candidate, and nothing is measured on it. */
export const voiceNoteSchema = z.object({
  id: idSchema,
  trialId: idSchema,
  takeId: idSchema,
  sha256: sha256Schema,
  type: voiceTypeSchema,
  lengthS: z.number().min(0).max(600),
  addedAtMs: instantMsSchema,
  binnedAtMs: instantMsSchema.nullable(),
});
/** As the page knows it; its bytes are asked for by its id. */
export type VoiceNote = Omit<z.infer<typeof voiceNoteSchema>, 'sha256'>;

/** A longer one is no note. */
export const LONGEST_VOICE_NOTE_S = 180;

/** Type of a sound by its first bytes, whatever its name or header says; null when it is none of those that are kept. */
export function voiceType(bytes: Uint8Array): VoiceNote['type'] | null {
  const text = (at: number, length: number) => String.fromCharCode(...bytes.subarray(at, at + length));
  if (bytes[0] === 0x1a && bytes[1] === 0x45 && bytes[2] === 0xdf && bytes[3] === 0xa3) return 'audio/webm';
  if (text(0, 4) === 'OggS') return 'audio/ogg';
  if (text(4, 4) === 'ftyp') return 'audio/mp4';
  return text(0, 4) === 'RIFF' && text(8, 4) === 'WAVE' ? 'audio/wav' : null;
}
