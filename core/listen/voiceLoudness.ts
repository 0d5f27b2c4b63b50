import { Cascade } from '../audio/biquad.ts';
import { kWeighting } from '../audio/weighting.ts';
import type { Span } from '../measure/report.types.ts';

const OFFSET_LUFS = -0.691;
const BLOCK_S = 0.4;
const HOP_S = 0.1;
/** Gates of BS.1770-5: what is quieter than this is no programme, and what lies this far under the rest is a pause. */
const ABSOLUTE_LUFS = -70;
const RELATIVE_LU = -10;
const LEAST_SHARE = 0.05;

/**
 * Loudness of the voice alone in a passage, in LUFS: that of ITU-R BS.1770-5 with both its gates, over the
 * words only, less the power of what lies between them. Without words it is that of all of the passage. A
 * whole file's loudness would judge slates, room tone and engines along with the voice.
 * @param words stretches of words in seconds of the passage
 * @returns null where nothing reaches the absolute gate
 */
export function voiceLoudnessLufs(samples: Float64Array, sampleRateHz: number, words: readonly Span[]): number | null {
  const weighted = new Float64Array(samples.length);
  new Cascade(kWeighting(sampleRateHz)).process(samples, weighted, samples.length);
  const hop = Math.round(HOP_S * sampleRateHz);
  const perBlock = Math.round(BLOCK_S / HOP_S);
  const sums = new Float64Array(Math.ceil(weighted.length / hop));
  weighted.forEach((value, frame) => {
    const at = Math.floor(frame / hop);
    sums[at] = (sums[at] as number) + value * value;
  });
  const spoken: number[] = [];
  const between: number[] = [];
  const blocks = Math.max(1, sums.length - perBlock + 1);
  for (let at = 0; at < blocks; at++) {
    const power = sums.subarray(at, at + perBlock).reduce((sum, value) => sum + value, 0) / Math.min(perBlock * hop, weighted.length - at * hop);
    const [fromS, toS] = [at * HOP_S, at * HOP_S + BLOCK_S];
    const inWords = words.some(([startS, endS]) => startS < toS && endS > fromS && Math.min(endS, toS) - Math.max(startS, fromS) > BLOCK_S / 2);
    const clear = words.every(([startS, endS]) => startS >= toS || endS <= fromS);
    if (inWords || words.length === 0) spoken.push(power);
    else if (clear) between.push(power);
  }
  const voice = gated(spoken);
  if (voice === null) return null;
  const noise = between.length > 0 ? mean(between) : 0;
  return loudness(Math.max(voice - noise, voice * LEAST_SHARE));
}

const mean = (powers: readonly number[]) => powers.reduce((sum, power) => sum + power, 0) / powers.length;
const loudness = (power: number) => OFFSET_LUFS + 10 * Math.log10(power);

function gated(powers: readonly number[]): number | null {
  const audible = powers.filter((power) => power > 0 && loudness(power) > ABSOLUTE_LUFS);
  if (audible.length === 0) return null;
  const gate = loudness(mean(audible)) + RELATIVE_LU;
  return mean(audible.filter((power) => loudness(power) > gate));
}
