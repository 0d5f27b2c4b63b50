import type { Span } from '../report.types.ts';
import type { ChannelTracks } from '../tracks/channelTracks.ts';

/** Where the wave has been flat at its extreme so far, widened by `reachS` on either side, in seconds of the file. */
export function flatSpans({ flatTops, sampleRateHz }: ChannelTracks, reachS: number): Span[] {
  return flatTops.spells(0, sampleRateHz, 0).map(({ startSample, endSample }) => [startSample / sampleRateHz - reachS, endSample / sampleRateHz + reachS]);
}
