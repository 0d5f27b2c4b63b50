import { resample } from '../audio/resample.ts';

/** All blind clips have this form, so that no header tells one from another. */
export const CLIP_RATE_HZ = 48_000;
const FADE_S = 0.01;
const LEAD_S = 0.25;

/** One clip before it is made blind. */
export interface ClipSource {
  samples: Float64Array;
  sampleRateHz: number;
  /** Start of the first word; 0 when there is none. */
  firstWordS: number;
  gainDb: number;
}

/**
 * Clips made alike in everything but their sound: one rate, level-matched, starting a quarter of a
 * second before the first word, and cut to one length with short fades. Clips of one file keep their
 * common clock, so that switching between them stays in the same syllable.
 * @param sameClock whether all clips run on one clock, as channels of one file do
 */
export function blindClips(sources: readonly ClipSource[], sameClock: boolean): Float64Array[] {
  const earliestS = Math.min(...sources.map((source) => source.firstWordS));
  const cut = sources.map((source) => {
    const startS = Math.max(0, (sameClock ? earliestS : source.firstWordS) - LEAD_S);
    const samples = resample(source.samples, source.sampleRateHz, CLIP_RATE_HZ);
    return samples.subarray(Math.min(samples.length, Math.round(startS * CLIP_RATE_HZ)));
  });
  const length = Math.min(...cut.map((samples) => samples.length));
  const fade = Math.min(length / 2, Math.round(FADE_S * CLIP_RATE_HZ));
  return cut.map((samples, index) => {
    const gain = 10 ** ((sources[index] as ClipSource).gainDb / 20);
    return Float64Array.from({ length }, (_, at) => (samples[at] as number) * gain * Math.min(1, at / fade, (length - 1 - at) / fade));
  });
}
