/** All clips have this rate, so that no header tells one from another. */
export const CLIP_RATE_HZ = 48_000;
/** Clips are heard in pieces of so many samples, so that memory does not grow with their length. */
export const CLIP_PIECE_FRAMES = 2 * CLIP_RATE_HZ;

/** A reel, and a page to send, hold their clips as a whole: of longer performances they have the beginning. */
export const LONGEST_WHOLE_S = 120;

/** How many samples a clip has. */
export const clipFrames = (lengthS: number): number => Math.round(lengthS * CLIP_RATE_HZ);

/** How many pieces a clip of so many samples has. */
export const pieceCount = (frames: number): number => Math.ceil(frames / CLIP_PIECE_FRAMES);
