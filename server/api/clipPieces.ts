import { CLIP_CHANNELS_HEADER, CLIP_FRAMES_HEADER, pieceSchema } from '@marvet/core/contract/clipPieces';
import type { ClipSource } from '@marvet/core/listen/blindClip';
import { clipFrames, pieceCount } from '@marvet/core/listen/clipForm';
import type { Context } from 'hono';
import type { ClipPlace } from '../jobs/tasks.ts';
import { notFound, parsed } from './http.ts';
import { anyStereo, placesOf } from './roundCuts.ts';
import type { Services } from './services.ts';

/** A clip that is heard: a recording from where on, how loud, and what is done to its tone. */
export interface HeardClip extends Omit<ClipSource, 'lengthS' | 'tone'> {
  recordingId: string;
  toned?: { sections: NonNullable<ClipSource['tone']>['sections'] } | null;
}

/** Clips of equal length that are heard beside each other. */
export interface HeardTogether {
  trialId: string;
  subjectId: string;
  /** Each once. */
  clips: HeardClip[];
  /** Which of them is heard under each letter. */
  heard: number[];
  lengthS: number;
  /** Whether one may be heard under two letters, so that equal bytes would tell it. */
  disguised: boolean;
}

/**
 * The piece that a context asks for, of all clips that are heard beside each other in one answer: neither the address, the length nor the
 * time of one tells it from the others. Made anew each time. @throws ApiError 404 past the end, and where a recording is gone
 */
export async function pieceAnswer(services: Pick<Services, 'store' | 'blobs' | 'work'>, context: Context, asked: HeardTogether): Promise<Response> {
  const piece = parsed(pieceSchema, context.req.param('piece'));
  const frames = clipFrames(asked.lengthS);
  if (piece >= pieceCount(frames)) throw notFound('piece of these clips');
  const { sources, wide } = await clipSources(services, asked);
  const bytes = await services.work.piece({ clips: sources, heard: asked.heard, wide, disguised: asked.disguised, piece }, context.req.raw.signal);
  return context.body(bytes as Uint8Array<ArrayBuffer>, 200, {
    'Content-Type': 'application/octet-stream',
    'Cache-Control': 'no-store',
    [CLIP_FRAMES_HEADER]: String(frames),
    [CLIP_CHANNELS_HEADER]: wide ? '2' : '1',
  });
}

/** Where clips lie, with the filters that they are heard through, and whether they have two channels. @throws ApiError 404 where a recording is gone */
export async function clipSources(
  services: Pick<Services, 'store' | 'blobs' | 'work'>,
  { trialId, subjectId, clips, lengthS }: Omit<HeardTogether, 'heard' | 'disguised'>,
): Promise<{ sources: ClipPlace[]; wide: boolean }> {
  const ids = clips.map(({ recordingId }) => recordingId);
  const [places, wide] = await Promise.all([placesOf(services, trialId, ids), anyStereo(services.store, ids)]);
  const sources = await Promise.all(
    clips.map(async ({ startS, gainDb, toned }, index): Promise<ClipPlace> => {
      const source = { ...(places[index] as (typeof places)[number]), startS, lengthS, gainDb };
      return toned ? { ...source, tone: await services.work.tone(subjectId, { ...source, wide, sections: toned.sections }) } : source;
    }),
  );
  return { sources, wide };
}
