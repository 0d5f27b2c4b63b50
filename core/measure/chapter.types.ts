import type { AudioEvent, Span } from './report.types.ts';
import type { ChannelTracks } from './tracks/channelTracks.ts';

/**
 * Some minutes of one channel, in which words were told from the rest. Times are seconds from the start of the
 * file. The tracks hold this chapter only; frame 0 of each lies at `startS`.
 */
export interface Heard {
  startS: number;
  endS: number;
  tracks: ChannelTracks;
  /** A-weighted mean squares of 10 ms. */
  weighted: Float64Array;
  speech: Span[];
  /** Whether a voice is sure in them; without one they are just what is loud, as in a test signal. */
  voiceSure: boolean;
  /** Stretches without words, whatever else is in them. */
  quiet: Span[];
  contrastDb: number;
}

/** The same with all that follows from it: events, how long the room rings, what is calm and what is not. */
export interface Chapter extends Heard {
  events: AudioEvent[];
  /** How long the room rings, from all that was heard so far; null while nothing shows it. */
  decayS: number | null;
  /** Power of the direct sound against that of the room; null while nothing shows it. */
  directToRoom: number | null;
  /** How long the room rings on after a word that ends at a time, in seconds. */
  rings: (wordEndS: number) => number;
  /** All that is no word and no tail of one: calm, gusts, knocks and traffic alike. */
  wordless: Span[];
  /** Room tone: quiet without events, or the stretch that somebody marked as room tone. */
  pause: Span[];
}
