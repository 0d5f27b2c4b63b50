import { voiceLoudnessLufs } from './voiceLoudness.ts';

/** Samples brought to the loudness of what they were made from, so that no change of level is taken for one of tone; held at full scale. */
export function asLoudAs(original: Float64Array, samples: Float64Array, sampleRateHz: number): Float64Array {
  const [wanted, now] = [voiceLoudnessLufs(original, sampleRateHz, []), voiceLoudnessLufs(samples, sampleRateHz, [])];
  const gain = wanted === null || now === null ? 1 : 10 ** ((wanted - now) / 20);
  return samples.map((value) => Math.max(-1, Math.min(1, value * gain)));
}
