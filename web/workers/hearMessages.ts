import type { HeardSetup, SetupsToHear } from '@marvet/core/place/hearSetups';

/** What the page asks of the worker that renders setups. */
export interface HearRequest extends Pick<SetupsToHear, 'setups' | 'talkers' | 'place' | 'seed'> {
  /** Dry words: the address of those that ship with Marvet, or a close recording of the user's own. */
  voice: { url: string } | { samples: Float64Array; rateHz: number };
}

/** How far it is, what came out, or why nothing did. */
export type HearReply = { kind: 'progress'; share: number } | { kind: 'done'; heard: HeardSetup[] } | { kind: 'failed'; message: string };
