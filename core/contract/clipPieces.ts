import { z } from 'zod';

/** Which piece of the clips, as it stands in an address. */
export const pieceSchema = z.coerce.number({ error: 'A piece has a number' }).int('A piece has a number').min(0, 'Pieces are counted from 0');

/** Headers of a piece: how many samples the clips have as a whole, and how many channels a clip has. */
export const CLIP_FRAMES_HEADER = 'Clip-Frames';
export const CLIP_CHANNELS_HEADER = 'Clip-Channels';
