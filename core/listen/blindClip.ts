import { filled } from '../audio/filled.ts';
import { resample } from '../audio/resample.ts';
import type { PairTrack } from '../measure/pair/track.ts';

/** All blind clips have this form, so that no header tells one from another. */
export const CLIP_RATE_HZ = 48_000;
const FADE_S = 0.01;

/** One clip before it is made blind. */
export interface ClipSource {
  /** Where it begins in its track. */
  startS: number;
  lengthS: number;
  gainDb: number;
}

/** How many channels a clip of a round has: two where any of its recordings is stereo, so that the form of none tells which it is. */
export const isWide = (recordings: readonly { channels: readonly number[] }[]): boolean => recordings.some(({ channels }) => channels.length > 1);

/**
 * A clip made like all others of its round in everything but its sound: one rate, level-matched, cut to
 * one length with short fades. Only what is heard is read, so that memory does not grow with the file.
 * @param wide as two channels: one that was recorded in mono is the same in both
 * @returns one array a channel
 */
export function blindClip(track: PairTrack, source: ClipSource, wide: boolean): Float64Array[] {
  if (!wide) return [clipOf(track, source)];
  const channels = (track.channels ?? [track]).map((channel) => clipOf(channel, source));
  return channels.length > 1 ? channels : [channels[0] as Float64Array, channels[0] as Float64Array];
}

function clipOf(track: PairTrack, { startS, lengthS, gainDb }: ClipSource): Float64Array {
  const read = track.read(Math.round(startS * track.sampleRateHz), Math.round(lengthS * track.sampleRateHz));
  const samples = resample(read, track.sampleRateHz, CLIP_RATE_HZ);
  const length = Math.round(lengthS * CLIP_RATE_HZ);
  const fade = Math.min(length / 2, Math.round(FADE_S * CLIP_RATE_HZ));
  const gain = 10 ** (gainDb / 20);
  return filled(length, (at) => (samples[at] ?? 0) * gain * Math.min(1, at / fade, (length - 1 - at) / fade));
}
