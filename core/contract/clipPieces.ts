import { z } from 'zod';
import { clipsDraftSchema } from '../domain/round.ts';

/** Which piece of the clips, as it stands in an address. */
export const pieceSchema = z.coerce.number({ error: 'A piece has a number' }).int('A piece has a number').min(0, 'Pieces are counted from 0');

/** Headers of a piece: how many samples the clips have as a whole, and how many channels a clip has. */
export const CLIP_FRAMES_HEADER = 'Clip-Frames';
export const CLIP_CHANNELS_HEADER = 'Clip-Channels';

/** Which clips, and how loud, as it stands in an address: recordings parted by commas. */
export const clipsInAddressSchema = z.object({
  recordingIds: z
    .string({ error: 'Choose the recordings that are heard' })
    .transform((ids) => ids.split(','))
    .pipe(clipsDraftSchema.shape.recordingIds),
  targetLufs: z.coerce.number().pipe(clipsDraftSchema.shape.targetLufs.unwrap()).default(-23),
  ceilingDbtp: z.coerce.number().pipe(clipsDraftSchema.shape.ceilingDbtp.unwrap()).default(-1),
});
