import { z } from 'zod';
import { idSchema, instantMsSchema, sha256Schema } from './identity.ts';

/** What a photograph can belong to. */
export const photoOwnerSchema = z.enum(['item', 'station', 'chain', 'sight', 'frame', 'take', 'placement']);
export type PhotoOwner = z.infer<typeof photoOwnerSchema>;

export const photoTypeSchema = z.enum(['image/jpeg', 'image/png', 'image/webp']);

/** Where a photograph belongs and what it shows. */
export const photoDraftSchema = z.object({
  ownerKind: photoOwnerSchema,
  ownerId: idSchema,
  caption: z.string().trim().max(160, 'Use at most 160 characters').default(''),
});
export type PhotoDraft = z.infer<typeof photoDraftSchema>;

export const photoSchema = photoDraftSchema.extend({
  id: idSchema,
  sha256: sha256Schema,
  type: photoTypeSchema,
  addedAtMs: instantMsSchema,
  binnedAtMs: instantMsSchema.nullable(),
});
/** A photograph as the page knows it; its bytes are asked for by its id. */
export type Photo = Omit<z.infer<typeof photoSchema>, 'sha256'>;

/** A photograph larger than this was not resized. */
export const LARGEST_PHOTO_BYTES = 2 << 20;

/**
 * Type of an image by its first bytes, whatever its name or header says.
 * @returns null when it is none of those that are kept
 */
export function imageType(bytes: Uint8Array): Photo['type'] | null {
  const starts = (...signature: number[]) => signature.every((byte, at) => bytes[at] === byte);
  if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (starts(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  const riff = starts(0x52, 0x49, 0x46, 0x46) && [0x57, 0x45, 0x42, 0x50].every((byte, at) => bytes[8 + at] === byte);
  return riff ? 'image/webp' : null;
}
