import type { FrameDraft } from '@marvet/core/domain/frame';
import type { Acoustics } from '@marvet/core/domain/station';
import type { HeardBoom } from '@marvet/core/place/hearFrame';

/** What the page asks of the worker that renders a frame. */
export interface HearRequest {
  frame: Pick<FrameDraft, 'talkers' | 'booms'>;
  place: Acoustics;
  /** Address of the dry words. */
  voiceUrl: string;
  seed: string;
}

/** How far it is, what came out, or why nothing did. */
export type HearReply = { kind: 'progress'; share: number } | { kind: 'done'; heard: HeardBoom[] } | { kind: 'failed'; message: string };
