import { CLIP_CHANNELS_HEADER, CLIP_FRAMES_HEADER } from '@marvet/core/contract/clipPieces';
import { CLIP_PIECE_FRAMES, pieceCount } from '@marvet/core/listen/clipForm';
import { pieceChannels } from '@marvet/core/listen/pieceBytes';

/** Clips as a listener's page gets them, pieces put together. */
export interface HeardClips {
  bytes: number;
  /** Of the first piece, without the date. */
  headers: string;
  /** By clip, then by channel. */
  clips: Float64Array[][];
}

/**
 * Fetches every piece of clips.
 * @param get answers an address without its host
 * @param pieces address of the pieces, without number and question
 */
export async function heardClips(get: (address: string) => Promise<Response>, pieces: string, question = ''): Promise<HeardClips> {
  let headers = '';
  let bytes = 0;
  let channels = 1;
  let count = 1;
  const joined: number[][] = [];
  for (let piece = 0; piece < count; piece++) {
    const response = await get(`${pieces}/${piece}${question}`);
    if (!response.ok) throw new Error(`${pieces}/${piece}: ${response.status} ${await response.text()}`);
    const buffer = await response.arrayBuffer();
    const frames = Number(response.headers.get(CLIP_FRAMES_HEADER));
    if (piece === 0) {
      const { date: _date, ...told } = Object.fromEntries(response.headers);
      headers = JSON.stringify(told);
      channels = Number(response.headers.get(CLIP_CHANNELS_HEADER));
      count = pieceCount(frames);
    }
    bytes += buffer.byteLength;
    const framesHere = Math.min(CLIP_PIECE_FRAMES, frames - piece * CLIP_PIECE_FRAMES);
    for (const [at, samples] of pieceChannels(buffer, buffer.byteLength / 4 / framesHere).entries()) {
      joined[at] ??= [];
      for (const sample of samples) joined[at].push(sample);
    }
  }
  const all = joined.map((samples) => Float64Array.from(samples));
  return { bytes, headers, clips: Array.from({ length: all.length / channels }, (_, clip) => all.slice(clip * channels, (clip + 1) * channels)) };
}
