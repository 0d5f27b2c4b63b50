import { Biquad, type BiquadCoefficients } from '../audio/biquad.ts';
import { type PairTrack, readAtTimes } from '../measure/pair/track.ts';
import { CLIP_PIECE_FRAMES, CLIP_RATE_HZ, clipFrames } from './clipForm.ts';

const FADE_FRAMES = 0.01 * CLIP_RATE_HZ;
/** What filters hear before a piece: after a second the narrowest bell has forgotten what came before that to under a step of 24 bits. */
const RUN_IN_FRAMES = CLIP_RATE_HZ;

/** What is done to the tone of a clip on purpose: filters at the rate of clips, and the gain that makes it as loud as it was. */
export interface ClipTone {
  sections: BiquadCoefficients[];
  gainDb: number;
}

/** One clip before it is made blind. */
export interface ClipSource {
  /** Where it begins in its track. */
  startS: number;
  lengthS: number;
  gainDb: number;
  /** What is done to its tone on purpose; absent where nothing is. */
  tone?: ClipTone | null;
}

/** How many channels a clip of a round has: two where any of its recordings is stereo, so that the form of none tells which it is. */
export const isWide = (recordings: readonly { channels: readonly number[] }[]): boolean => recordings.some(({ channels }) => channels.length > 1);

/**
 * A clip made like all others of its round in everything but its sound: one rate, level-matched, cut to
 * one length with short fades.
 * @param wide as two channels: one that was recorded in mono is the same in both
 * @returns one array a channel
 */
export const blindClip = (track: PairTrack, source: ClipSource, wide: boolean): Float64Array[] => clipPart(track, source, wide, 0, clipFrames(source.lengthS));

/** A piece of {@link blindClip}, the same as if the whole had been made and then cut; only what it needs is read. The last may be shorter. */
export function clipPiece(track: PairTrack, source: ClipSource, wide: boolean, piece: number): Float64Array[] {
  const from = piece * CLIP_PIECE_FRAMES;
  return clipPart(track, source, wide, from, Math.max(0, Math.min(CLIP_PIECE_FRAMES, clipFrames(source.lengthS) - from)));
}

function clipPart(track: PairTrack, source: ClipSource, wide: boolean, from: number, count: number): Float64Array[] {
  if (!wide) return [partOf(track, source, from, count)];
  const channels = (track.channels ?? [track]).map((channel) => partOf(channel, source, from, count));
  return channels.length > 1 ? channels : [channels[0] as Float64Array, channels[0] as Float64Array];
}

function partOf(track: PairTrack, { startS, lengthS, gainDb, tone }: ClipSource, from: number, count: number): Float64Array {
  const gain = 10 ** (gainDb / 20);
  const before = tone ? Math.min(from, RUN_IN_FRAMES) : 0;
  const whole = readAtClipRate(track, startS, from - before, before + count);
  for (let at = 0; at < whole.length; at++) whole[at] = (whole[at] as number) * gain;
  if (tone) toned(whole, tone);
  const samples = whole.subarray(before);
  const frames = clipFrames(lengthS);
  const fade = Math.min(frames / 2, FADE_FRAMES);
  for (let at = 0; at < count && from + at < fade; at++) samples[at] = (samples[at] as number) * ((from + at) / fade);
  for (let at = Math.max(0, frames - 1 - Math.ceil(fade) - from); at < count; at++) {
    samples[at] = (samples[at] as number) * Math.max(0, Math.min(1, (frames - 1 - from - at) / fade));
  }
  return samples;
}

function toned(samples: Float64Array, { sections, gainDb }: ClipTone): void {
  const gain = 10 ** (gainDb / 20);
  for (const section of sections) new Biquad(section).process(samples, samples, samples.length);
  for (let at = 0; at < samples.length; at++) samples[at] = (samples[at] as number) * gain;
}

/** Samples of a track at the rate of clips, `from` samples of that rate after its start. */
function readAtClipRate(track: PairTrack, startS: number, from: number, count: number): Float64Array {
  const first = Math.round(startS * track.sampleRateHz);
  if (track.sampleRateHz === CLIP_RATE_HZ) return track.read(first + from, count);
  return readAtTimes(track, first / track.sampleRateHz + from / CLIP_RATE_HZ, 1 / CLIP_RATE_HZ, count);
}
